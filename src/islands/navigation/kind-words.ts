import type { NavigationKind } from "../../core/navigation/choices.ts";
import * as say from "./words.ts";

export const KIND_WORDS: Readonly<Record<NavigationKind, string>> = {
  page: say.page,
  address: say.outsideAddress,
  route: say.shortLink,
  file: say.file,
  heading: say.heading,
};
