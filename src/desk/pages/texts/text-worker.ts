import { Problem } from "../../ground/problem.ts";
import { readText, type TextTask } from "./read-text.ts";
import type { Answer } from "./texts.ts";

/** Reads one text in the thread for it. */
export default function answer(task: TextTask): Answer {
  try {
    return { result: readText(task) };
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    return { refused: error.parts() };
  }
}
