import type { Editor } from "@tiptap/react";
import type { Fix } from "../../../../core/pages/check/finding.ts";
import { formatOverride, parseOverride } from "../../../../core/rules/override.ts";
import type { KnotAt } from "../../rope/use-rope.ts";
import { applyLink, takeOffLink } from "../editor-links.ts";

/** Takes the step that a finding proposes, at its link in the text. One that is to be looked at is left as it is. */
export function fixInText(editor: Editor, knot: KnotAt, step: Fix): void {
  if (step.do === "open") return;
  if (step.do === "unlink") return takeOffLink(editor, knot);
  const { target: _target, ...byRules } = parseOverride(knot.link.override ?? "").override;
  const change =
    step.do === "address"
      ? { href: step.address, creative: null }
      : step.do === "drop-title"
        ? { title: null }
        : { target: null, override: formatOverride(byRules) ?? null };
  applyLink(editor, { ...knot, address: undefined }, { ...knot.link, ...change, words: knot.words });
}
