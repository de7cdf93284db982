import { navigationSchema, navigationInputSchema } from "../core/navigation/navigation.ts";
import { call } from "./ground/call.ts";

/** The calls about navigation. */
export const navigation = {
  read: call("GET", "/sites/:site/navigation", {
    summary: "The navigation",
    role: "reader",
    answer: navigationSchema,
  }),
  replace: call("PUT", "/sites/:site/navigation", {
    summary: "Replace the navigation",
    role: "editor",
    body: navigationInputSchema,
    answer: navigationSchema,
  }),
};
