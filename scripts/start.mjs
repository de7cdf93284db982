import { installPackages, installDebian } from "./install.mjs";
import { postgresFolder } from "./postgres.mjs";

installPackages();
if (!process.env.DATABASE_URL)
  installDebian(["postgresql"], () => postgresFolder() !== undefined, "PostgreSQL");
const { register: registerTypeScript } = await import("tsx/esm/api");
registerTypeScript();
await import("./start-app.ts");
