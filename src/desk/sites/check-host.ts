import { randomBytes } from "node:crypto";
import { publicAddress } from "../../core/address/public-address.ts";
import { HOST_CHECK_PATH, type HostCheck } from "../../core/sites/host.ts";
import type { WithDeliveryPort, WithOutgoing } from "../ground/parts.ts";
import { notFound } from "../ground/problem.ts";
import type { OpenSite } from "./open-site.ts";

export interface WithProof {
  /** What this installation answers to a question; nobody else can. */
  proof(question: string): string;
}

const MAX_BYTES = 1_000;

/** Asks a host as a reader's browser would, plainly and by https, whether it is this installation that answers. */
export async function checkHost(
  desk: WithDeliveryPort & WithOutgoing & WithProof,
  site: OpenSite,
  name: string,
): Promise<HostCheck> {
  if (!site.hostNames.includes(name)) throw notFound(`The host ${name}`);
  const own = publicAddress(name, "/", desk.deliveryPort).replace(/\/$/, "");
  const [plain, secure] = await Promise.all([
    asked(desk, own.replace(/^https:/, "http:")),
    asked(desk, own.replace(/^http:/, "https:")),
  ]);
  return { plain, secure };
}

async function asked(desk: WithOutgoing & WithProof, front: string): Promise<HostCheck["plain"]> {
  const question = randomBytes(16).toString("hex");
  const address = `${front}${HOST_CHECK_PATH}?question=${question}`;
  const answer = await desk.outgoing.read(address, MAX_BYTES);
  const shown = `${front}/`;
  if (!answer.ok) return { address: shown, isOurs: false, says: `${answer.reason}.` };
  const isOurs = Buffer.from(answer.bytes).toString().trim() === desk.proof(question);
  return {
    address: shown,
    isOurs,
    says: isOurs ? "leads here." : "leads to another server, which does not pass readers on to this one.",
  };
}
