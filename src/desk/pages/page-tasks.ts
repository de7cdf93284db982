import type { PageChange, PageInput } from "../../core/pages/page.ts";
import type { WithDeliveryPort, WithReport, WithStore } from "../ground/parts.ts";
import type { Task } from "../jobs/task.ts";
import { createPage, savePage } from "./pages.ts";
import type { WithTexts } from "./texts/read-text.ts";
import type { Actor } from "../../core/people/actor.ts";

type Saving = WithStore & WithDeliveryPort & WithReport & WithTexts;
type Saved = Awaited<ReturnType<typeof savePage>>;

/** Makes a page whose text is so long that it would hold others up. */
export const createPageTask: Task<Saving, { actor: Actor; page: PageInput }, Saved> = {
  name: "pages.create",
  run: (desk, site, { actor, page }) => createPage(desk, actor, site, page),
};

/** Saves such a page. */
export const savePageTask: Task<Saving, { actor: Actor; id: string; change: PageChange }, Saved> = {
  name: "pages.save",
  run: (desk, site, { actor, id, change }) => savePage(desk, actor, site, id, change),
};
