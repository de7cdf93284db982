// Plain JavaScript: tsx registers itself on the main thread only, so a thread of ours does it before its TypeScript.
import { register } from "tsx/esm/api";

register();
const { default: work } = await import("./desk-worker.ts");
export default work;
