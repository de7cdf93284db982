// A delivery listener as a process of its own: DATABASE_URL and the spool's folder come as arguments, and
// "origins-on-loopback" where all origins are to be asked on this machine.
import { testDelivery } from "./delivery.ts";

const [databaseUrl, folder, origins] = process.argv.slice(2);
const judge = async (): Promise<string> => "127.0.0.1";
const delivery = await testDelivery(
  databaseUrl!,
  folder!,
  origins === "origins-on-loopback" ? { judge } : {},
);
process.on("SIGTERM", () => void delivery.end().then(() => process.exit(0)));
console.log(`ready on ${delivery.port}`);
