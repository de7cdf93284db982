import { answerCall } from "../../src/desk/ground/http/answer.ts";
import type { Desk } from "../../src/desk/desk.ts";
import { createJobs } from "../../src/desk/jobs/jobs.ts";
import { JOB_KINDS } from "../../src/desk/job-kinds.ts";
import { startJobs } from "../../src/desk/jobs/start-jobs.ts";
import { sealWith } from "../../src/desk/ground/seal.ts";
import { runTask } from "../../src/desk/tasks.ts";
import { textsHere } from "../../src/desk/pages/texts/read-text.ts";
import type { Outgoing } from "../../src/outgoing/outgoing.ts";
import { createSite } from "../../src/desk/sites/sites.ts";
import type { Store } from "../../src/store/ground/store.ts";
import { assertDocumented } from "./documented.ts";
import { freshStore } from "./database.ts";
import { proofWith } from "../../src/incoming/proof.ts";
import { openSite, type OpenSite } from "../../src/desk/sites/open-site.ts";
import type { Actor } from "../../src/core/people/actor.ts";

export const OWNER: Actor = { name: "Ida", role: "owner" };

/** An outside world in which nobody answers; tests that need one put their own in its place. */
export const NOBODY_OUTSIDE: Outgoing = {
  visit: async () => ({ ok: false, reason: "has no address", ms: 1 }),
  read: async () => ({ ok: false, reason: "has no address" }),
  fetch: async () => ({ ok: false, reason: "has no address" }),
};

/** What a call of the API answered. */
export interface Answered {
  status: number;
  type: string;
  headers: Headers;
  // The tests look into answers of every shape.
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
  body: any;
  bytes: Uint8Array;
}

/** A desk on a fresh database with one site, called as the API is. */
export interface TestDesk {
  desk: Desk;
  store: Store;
  url: string;
  site: OpenSite;
  call(
    method: string,
    path: string,
    body?: unknown,
    options?: { actor?: Actor | null; headers?: Record<string, string>; raw?: BodyInit },
  ): Promise<Answered>;
  failures: unknown[];
  /** Ends its part in long work. */
  endJobs(): Promise<void>;
  close(): Promise<void>;
}

/** The site is “garden”, on garden.example, with short links on gdn.example; on a fresh database, or on one that is migrated. */
export async function testDesk(
  database?: Pick<Awaited<ReturnType<typeof freshStore>>, "store" | "url" | "drop">,
): Promise<TestDesk> {
  const { store, url, drop } = database ?? (await freshStore());
  const failures: unknown[] = [];
  const desk: Desk = {
    store,
    deliveryPort: 4601,
    outgoing: NOBODY_OUTSIDE,
    seal: sealWith(["a secret of the tests"]),
    jobs: createJobs(store),
    report: (_message, error) => failures.push(error),
    thread: {
      run: ({ name }, siteId, input, progress) =>
        runTask(desk, { task: name, siteId, input }, progress) as never,
      end: async () => {},
    },
    texts: textsHere,
    workspaceHosts: ["localhost:4600"],
    mailer: undefined,
    workspaceUrl: "https://desk.garden.example",
    health: async () => ({}),
    proof: proofWith("a secret of the tests"),
    preview: (_site, page) => `<title>${page.title}</title>${page.html}`,
  };
  const runner = startJobs(desk, JOB_KINDS);
  const { id } = await createSite(desk, OWNER, {
    key: "garden",
    name: "Garden",
    hosts: [
      { name: "garden.example", role: "primary" },
      { name: "gdn.example", role: "short" },
    ],
  });
  return {
    desk,
    store,
    url,
    site: await openSite(desk, id),
    failures,
    async call(method, path, body, options = {}) {
      const init: RequestInit = {
        method,
        headers: {
          ...(body === undefined && options.raw === undefined ? {} : { "Content-Type": "application/json" }),
          Prefer: "wait=30", // a slow machine is no reason for an answer from before
          ...options.headers,
        },
      };
      if (body !== undefined) init.body = JSON.stringify(body);
      if (options.raw !== undefined) init.body = options.raw;
      const actor = options.actor === undefined ? OWNER : (options.actor ?? undefined);
      const response = await answerCall(
        desk,
        new Request(`http://localhost/api/v1${path}`, init),
        actor,
        (error) => failures.push(error),
      );
      const bytes = new Uint8Array(await response.arrayBuffer());
      const text = new TextDecoder().decode(bytes);
      const type = response.headers.get("content-type") ?? "";
      const answered = {
        status: response.status,
        type,
        headers: response.headers,
        bytes,
        body: type.includes("json") && text !== "" ? JSON.parse(text) : text,
      };
      assertDocumented(method, path, answered);
      return answered;
    },
    endJobs: () => runner.stop(),
    async close() {
      await runner.stop();
      await drop();
    },
  };
}
