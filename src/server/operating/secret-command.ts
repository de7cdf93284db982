import { lockFolder } from "../../delivery/clicks/folder-lock.ts";
import { renewAllSeals } from "../../desk/programs/renew-all-seals.ts";
import { sealWith } from "../../desk/ground/seal.ts";
import { changeKeptSecret, forgetSecretBefore, knownSecrets, newSecret } from "../secret.ts";
import { knownSecret } from "../starting.ts";
import { WrongUsage, HOUSE, type Operating } from "./operate.ts";

/**
 * Seals all that is sealed with the newest secret. The data folder's own is changed first, while nothing runs there; one that
 * the settings name is changed there, and on every node, before this.
 */
export async function secretCommand(args: readonly string[], operating: Operating): Promise<void> {
  if (args.length !== 1 || args[0] !== "rotate") throw new WrongUsage("say “secret rotate”.");
  const { config, say } = operating;
  if (config.secret !== undefined) {
    if (config.secretsBefore.length === 0)
      throw new Error(
        `Set MAPROPE_SECRET to a new one, such as ${newSecret()}, and MAPROPE_SECRET_BEFORE to the present one, on every node; start them again, and then say “secret rotate” once more.`,
      );
    await sealAnew(operating);
    return say("MAPROPE_SECRET_BEFORE is needed no more, once every node runs with the new one.");
  }
  const lock = await lockFolder(config.dataFolder);
  try {
    if (knownSecrets(config).length === 0)
      throw new Error(`There is no secret in ${config.dataFolder} yet; the first start makes one.`);
    changeKeptSecret(config.dataFolder);
    await sealAnew(operating);
    forgetSecretBefore(config.dataFolder);
    say(`The new secret is in the file “secret” of ${config.dataFolder}; keep a copy of it elsewhere.`);
  } finally {
    lock.release();
  }
}

async function sealAnew({ store, config, say }: Operating): Promise<void> {
  const secrets = knownSecrets(config);
  await knownSecret(store, secrets);
  const { renewed, unreadable } = await renewAllSeals({ store, seal: sealWith(secrets) }, HOUSE);
  say(`${renewed} sealed anew.`);
  if (unreadable.length > 0)
    throw new Error(
      `No secret that is known here opens these: ${unreadable.join(", ")}. Name the earlier ones in MAPROPE_SECRET_BEFORE, or store them anew.`,
    );
}
