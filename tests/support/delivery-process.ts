// A delivery listener as a process of its own: DATABASE_URL and the spool's folder come as arguments.
import { testDelivery } from "./delivery.ts";

const [databaseUrl, folder] = process.argv.slice(2);
const delivery = await testDelivery(databaseUrl!, folder!);
process.on("SIGTERM", () => void delivery.end().then(() => process.exit(0)));
console.log(`ready on ${delivery.port}`);
