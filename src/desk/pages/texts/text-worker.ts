import { inThread } from "../../../threads/in-thread.ts";
import { crossing } from "../../ground/crossing.ts";
import { readText, type TextTask } from "./read-text.ts";

/** Reads one text in the thread for it. */
export default inThread((task: TextTask) => crossing(() => readText(task)));
