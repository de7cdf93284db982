import { useMutation } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { bodyToHtml } from "../../../core/pages/body/to-html.ts";
import type { Page, Placement } from "../../../core/pages/page.ts";
import type { Site } from "../../../core/sites/site.ts";
import { notify } from "../../../ui/notices/notices.ts";
import type { LeftPath } from "../LeftBehind.tsx";
import { dropBackup, writeBackup, type Backup } from "./backup.ts";
import { useLeaving } from "./use-leaving.ts";
import {
  isEmpty,
  keptChange,
  NOTHING_WRITTEN,
  over,
  requestText,
  writtenOut,
  writtenOver,
  type WrittenChange,
} from "./written-change.ts";
import { refresh } from "../../../ui/client/queries.ts";
import { api, messageOf, ApiProblem, JsonText } from "../../../ui/client/api.ts";

/** The fields of a page that the writing view edits. */
export interface DraftFields {
  path: string;
  title: string;
  description: string;
  category: string;
  inNavigation: boolean;
  placement: Placement | null;
}

/** A change of the draft. The text is given as a function: it is only written out when it is saved or kept, a body as JSON. */
export type DraftChange = Partial<DraftFields> & { body?: () => string; html?: () => string };

export type SaveState = "saved" | "waiting" | "saving" | "failed";

/** A draft being written: it saves itself, and publishes on request. */
export interface Draft {
  page: Page;
  fields: DraftFields;
  state: SaveState;
  /** Why the last save failed; at its field when the server named one. */
  failure: string | undefined;
  fieldErrors: Record<string, string>;
  /** What somebody else saved meanwhile; nothing is written until the person has chosen. */
  conflict: Page | undefined;
  /** Others who have the page open. */
  others: readonly string[];
  /** A path that readers knew and that nothing answers since the last publication or its end. */
  left: LeftPath | undefined;
  forgetLeft(): void;
  /** Takes the page back from readers. */
  unpublish(): void;
  edit(change: DraftChange): void;
  saveNow(): Promise<boolean>;
  publish(): void;
  publishing: boolean;
  /** Ends a conflict: goes on from the other's version, with one's own text over it or not. The other one is kept stash. */
  resolveConflict(keepMine: boolean): Promise<void>;
  /** Goes on from a version of the page that was fetched or restored. */
  adopt(page: Page): void;
}

/** A save waits for a rest in the typing, but never longer than this. */
const REST_MS = 700;
const MAX_MS = 2_500;
/** How old what this browser has kept may be, while somebody types and when they stop. */
const BACKUP_MS = 200;
const RETRY_MS = 4_000;
const VISIT_MS = 4_000;

/** Whose text replaces what stands in the editor: somebody else's, or one's own that was written as source. */
export type AdoptedFrom = "others" | "source";

/** `adopted` is called with a page whose text replaces what stands in the editor. */
export function useDraft(
  site: Site,
  first: Page,
  recovered: Backup | undefined,
  adopted: (page: Page, from: AdoptedFrom) => void,
): Draft {
  const [page, setPage] = useState(first);
  const [fields, setFields] = useState<DraftFields>(() => pickFields({ ...first, ...recovered?.change }));
  const [state, setState] = useState<SaveState>("saved");
  const [failure, setFailure] = useState<string>();
  const [fieldErrors, setFieldErrors] = useState<Record<string, string>>({});
  const [conflict, setConflict] = useState<Page>();
  const [others, setOthers] = useState<readonly string[]>([]);
  const pending = useRef<Record<string, unknown>>({});
  const sending = useRef<WrittenChange>(NOTHING_WRITTEN);
  const version = useRef(first.version);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const waitingSince = useRef(0);
  const lastEdit = useRef(0);
  const unshown = useRef<Page>(undefined);
  const restTimer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const backupTimer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const running = useRef<Promise<boolean>>(undefined);
  const adopting = useRef(adopted);
  useEffect(() => {
    adopting.current = adopted;
  });

  const backupNow = useCallback((): Backup => {
    const sent = sending.current;
    const kept = writtenOver(sent, writtenOut(pending.current));
    return { version: version.current, at: Date.now(), ...kept, ...(isEmpty(sent) ? {} : { sending: sent }) };
  }, []);

  // A save in the midst of typing is shown when the typing rests: to render a long page between two keys would be felt.
  const showSaved = useCallback((): void => {
    clearTimeout(restTimer.current);
    if (!unshown.current) return;
    setPage(unshown.current);
    setState("saved");
    unshown.current = undefined;
  }, []);
  const send = useCallback(
    async (show: "at once" | "at rest"): Promise<boolean> => {
      const change = pending.current;
      if (Object.keys(change).length === 0) {
        showSaved();
        return true;
      }
      pending.current = {};
      const written = writtenOut(change);
      sending.current = written;
      waitingSince.current = 0;
      const rest = (): number => (show === "at once" ? 0 : lastEdit.current + REST_MS - Date.now());
      if (rest() <= 0) setState("saving");
      try {
        const request = new JsonText(requestText(written, version.current));
        const saved = await api("PUT /sites/:site/pages/:id", {
          site: site.id,
          id: first.id,
          body: request,
        }).catch((error: unknown) => arrivedBefore(error, keptChange(written)));
        sending.current = NOTHING_WRITTEN;
        version.current = saved.version;
        const isDone = Object.keys(pending.current).length === 0;
        if (isDone) {
          unshown.current = saved;
          if (rest() > 0) restTimer.current = setTimeout(showSaved, rest());
          else showSaved();
        }
        if (change.html !== undefined) adopting.current(saved, "source");
        setFailure(undefined);
        setFieldErrors((before) => (Object.keys(before).length === 0 ? before : {}));
        if (!isDone) setState("waiting");
        else {
          clearTimeout(backupTimer.current);
          backupTimer.current = undefined;
          void dropBackup(first.id);
        }
        return true;
      } catch (error) {
        // What could not be saved waits together with what was typed since.
        pending.current = over(change, pending.current);
        sending.current = NOTHING_WRITTEN;
        setState("failed");
        if (error instanceof ApiProblem && error.status === 409) setConflict(error.current as Page);
        else if (error instanceof ApiProblem && error.status === 422) setFieldErrors(byField(error));
        else timer.current = setTimeout(() => void save("at once"), RETRY_MS);
        setFailure(messageOf(error));
        return false;
      }
    },
    [site.id, first.id, showSaved],
  );

  const save = useCallback(
    async (show: "at once" | "at rest"): Promise<boolean> => {
      clearTimeout(timer.current);
      await running.current;
      running.current = send(show);
      return running.current;
    },
    [send],
  );
  const saveNow = useCallback(() => save("at once"), [save]);

  const edit = useCallback<Draft["edit"]>(
    (change) => {
      const { body, html, ...others } = change;
      if (Object.keys(others).length > 0) setFields((before) => ({ ...before, ...others }));
      pending.current = over(pending.current, body || html ? change : others);
      setState("waiting");
      const now = Date.now();
      lastEdit.current = now;
      if (waitingSince.current === 0) waitingSince.current = now;
      clearTimeout(restTimer.current);
      unshown.current = undefined;
      clearTimeout(timer.current);
      timer.current = setTimeout(
        () => void save("at rest"),
        Math.max(0, Math.min(REST_MS, waitingSince.current + MAX_MS - now)),
      );
      // Each key is kept soon after it was pressed, whether or not another one follows.
      backupTimer.current ??= setTimeout(() => {
        backupTimer.current = undefined;
        if (Object.keys(pending.current).length > 0) void writeBackup(first.id, backupNow());
      }, BACKUP_MS);
    },
    [save, first.id, backupNow],
  );

  const adopt = useCallback<Draft["adopt"]>((next) => {
    clearTimeout(timer.current);
    clearTimeout(restTimer.current);
    unshown.current = undefined;
    pending.current = {};
    waitingSince.current = 0;
    version.current = next.version;
    setPage(next);
    setFields(pickFields(next));
    setFailure(undefined);
    setFieldErrors({});
    setState("saved");
    adopting.current(next, "others");
  }, []);

  // What a tab that crashed had not saved is written on, or shown beside what somebody saved since.
  useEffect(() => {
    if (!recovered) return;
    // What was sent as the tab was left has arrived: it is what stands there.
    if (isSavedIn(recovered.change, first)) return void dropBackup(first.id);
    pending.current = recovered.change;
    const { version: base, sending: sent } = recovered;
    const hasSentArrived =
      sent !== undefined && first.version === base + 1 && isSavedIn(keptChange(sent), first);
    if (base === first.version || hasSentArrived) {
      notify("Brought back what this browser had not been able to save.");
      setState("waiting");
      void saveNow();
    } else setConflict(first);
  }, [recovered, first, saveNow]);

  const isAllSaved = useCallback(
    () => isEmpty(sending.current) && Object.keys(pending.current).length === 0,
    [],
  );
  useLeaving({ siteId: site.id, pageId: first.id, isAllSaved, backupNow, saveNow });

  useEffect(() => {
    const tab = crypto.randomUUID();
    const visit = async (): Promise<void> => {
      if (document.visibilityState === "hidden") return;
      const known = version.current;
      const there = await api("POST /sites/:site/pages/:id/visit", {
        site: site.id,
        id: first.id,
        body: { tab },
      });
      setOthers((before) => (before.join() === there.others.join() ? before : there.others));
      await running.current;
      const isIdle = Object.keys(pending.current).length === 0 && version.current === known;
      if (there.version <= known || !isIdle) return;
      const theirs = await api("GET /sites/:site/pages/:id", { site: site.id, id: first.id });
      if (Object.keys(pending.current).length > 0 || version.current !== known) return;
      adopt(theirs);
      notify(`${theirs.updatedBy} saved this page; what you see is that version.`);
    };
    const asking = (): void => void visit().catch(() => setOthers([])); // away: saving tells of it
    asking();
    const every = setInterval(asking, VISIT_MS);
    return () => clearInterval(every);
  }, [site.id, first.id, adopt]);

  const [left, setLeft] = useState<LeftPath>();
  const pathOf = (of: Page): string | null =>
    of.status === "published" && of.kind === "page" ? new URL(of.url).pathname : null;
  // A path that readers knew may be answered by nothing now.
  const noteLeft = (before: Page, after: Page): void => {
    const [was, is] = [pathOf(before), pathOf(after)];
    if (was !== null && was !== is) setLeft({ path: was, now: is });
  };
  const unpublish = async (): Promise<void> => {
    showSaved();
    try {
      const taken = await api("POST /sites/:site/pages/:id/unpublish", {
        site: site.id,
        id: first.id,
        body: {
          version: version.current,
        },
      });
      noteLeft(page, taken);
      setPage(taken);
      void refresh("GET /sites/:site/pages");
      notify(`Took “${taken.title}” back from readers`);
    } catch (error) {
      notify(messageOf(error), { tone: "failed" });
    }
  };

  const publishing = useMutation({
    mutationFn: async () => {
      if (!(await saveNow())) throw new Error("not saved");
      return api("POST /sites/:site/pages/:id/publish", {
        site: site.id,
        id: first.id,
        body: { version: version.current },
      });
    },
    onSuccess: (published) => {
      noteLeft(page, published);
      setPage(published);
      setFailure(undefined);
      void refresh("GET /sites/:site/pages");
      void refresh("GET /sites/:site/pages/:id/revisions");
      notify(`Published “${published.title}”`);
    },
    onError: (error) => {
      if (!(error instanceof ApiProblem)) return;
      if (error.status === 409) setConflict(error.current as Page);
      setFieldErrors(byField(error));
      setFailure(error.message);
    },
  });

  const resolveConflict = useCallback<Draft["resolveConflict"]>(
    async (keepMine) => {
      if (!conflict) return;
      const { placement: _placement, ...mine } = keptChange(writtenOut(pending.current));
      const { title, description, category, path, body } = conflict;
      // Neither is lost: the one that does not become the draft is kept among the page's versions.
      const stash = keepMine ? { title, description, category, path, body } : mine;
      try {
        await api("POST /sites/:site/pages/:id/aside", { site: site.id, id: first.id, body: stash });
      } catch (error) {
        notify(messageOf(error), { tone: "failed" });
        return;
      }
      void refresh("GET /sites/:site/pages/:id/revisions");
      version.current = conflict.version;
      setConflict(undefined);
      setFailure(undefined);
      if (keepMine) return void saveNow();
      void dropBackup(first.id);
      adopt(conflict);
    },
    [conflict, site.id, first.id, saveNow, adopt],
  );

  return {
    page,
    left,
    forgetLeft: () => setLeft(undefined),
    unpublish: () => void unpublish(),
    fields,
    state,
    failure,
    fieldErrors,
    conflict,
    others,
    edit,
    saveNow,
    publish: () => publishing.mutate(),
    publishing: publishing.isPending,
    resolveConflict,
    adopt,
  };
}

function pickFields(page: Page): DraftFields {
  const { path, title, description, category, inNavigation, placement } = page;
  return { path, title, description, category, inNavigation, placement };
}

/** True when everything of a change stands in the page as it was saved. */
function isSavedIn({ body, html, ...fields }: Record<string, unknown>, page: Page): boolean {
  const isSame = Object.entries(fields).every(
    ([name, value]) => JSON.stringify(value) === JSON.stringify(page[name as keyof Page]),
  );
  const text = body === undefined ? html : bodyToHtml(body);
  return isSame && (text === undefined || text === page.html);
}

/** The page, where a save is refused since it has arrived before: by the request that outlived its tab. */
function arrivedBefore(error: unknown, change: Record<string, unknown>): Page {
  const current = error instanceof ApiProblem && error.status === 409 ? (error.current as Page) : undefined;
  if (current && isSavedIn(change, current)) return current;
  throw error;
}

function byField(problem: ApiProblem): Record<string, string> {
  return Object.fromEntries(problem.errors.map(({ path, message }) => [path, message]));
}
