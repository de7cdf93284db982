import { useMutation } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import type { Page } from "../../core/objects/page.ts";
import type { Site } from "../../core/objects/site.ts";
import { api, ApiProblem, messageOf, queries } from "../../ui/api.ts";
import { tell } from "../../ui/notices.ts";

/** The fields of a page that the writing view edits. */
export interface DraftFields {
  path: string;
  title: string;
  description: string;
  category: string;
  inNavigation: boolean;
}

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
  edit(change: Partial<DraftFields> & { body?: unknown }): void;
  saveNow(): Promise<boolean>;
  publish(): void;
  publishing: boolean;
  /** Ends a conflict: goes on from the other's version, with one's own fields written over it or not. */
  settle(keepMine: boolean): void;
}

const REST_MS = 700;
const RETRY_MS = 4_000;

export function useDraft(site: Site, first: Page): Draft {
  const [page, setPage] = useState(first);
  const [fields, setFields] = useState<DraftFields>(() => pickFields(first));
  const [state, setState] = useState<SaveState>("saved");
  const [failure, setFailure] = useState<string>();
  const [fieldErrors, setFieldErrors] = useState<Record<string, string>>({});
  const [conflict, setConflict] = useState<Page>();
  const pending = useRef<Record<string, unknown>>({});
  const version = useRef(first.version);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const running = useRef<Promise<boolean>>(undefined);

  const send = useCallback(async (): Promise<boolean> => {
    const change = pending.current;
    if (Object.keys(change).length === 0) return true;
    pending.current = {};
    setState("saving");
    try {
      const saved = await api<Page>("PUT", `/sites/${site.id}/pages/${first.id}`, {
        ...change,
        version: version.current,
      });
      version.current = saved.version;
      setPage(saved);
      setFailure(undefined);
      setFieldErrors({});
      setState(Object.keys(pending.current).length > 0 ? "waiting" : "saved");
      return true;
    } catch (error) {
      // What could not be saved waits together with what was typed since.
      pending.current = { ...change, ...pending.current };
      setState("failed");
      if (error instanceof ApiProblem && error.status === 409) setConflict(error.current as Page);
      else if (error instanceof ApiProblem && error.status === 422) setFieldErrors(byField(error));
      else timer.current = setTimeout(() => void saveNow(), RETRY_MS);
      setFailure(messageOf(error));
      return false;
    }
  }, [site.id, first.id]);

  const saveNow = useCallback(async (): Promise<boolean> => {
    clearTimeout(timer.current);
    await running.current;
    running.current = send();
    return running.current;
  }, [send]);

  const edit = useCallback<Draft["edit"]>(
    (change) => {
      const { body, ...others } = change;
      if (Object.keys(others).length > 0) setFields((before) => ({ ...before, ...others }));
      Object.assign(pending.current, body === undefined ? others : change);
      setState("waiting");
      clearTimeout(timer.current);
      timer.current = setTimeout(() => void saveNow(), REST_MS);
    },
    [saveNow],
  );

  useEffect(() => {
    // Leaving saves what still waits; the browser sends it even while the page goes away.
    const leave = (): void => {
      if (Object.keys(pending.current).length === 0 || document.visibilityState !== "hidden") return;
      void saveNow();
    };
    document.addEventListener("visibilitychange", leave);
    return () => document.removeEventListener("visibilitychange", leave);
  }, [saveNow]);

  const publishing = useMutation({
    mutationFn: async () => {
      if (!(await saveNow())) throw new Error("not saved");
      return api<Page>("POST", `/sites/${site.id}/pages/${first.id}/publish`, { version: version.current });
    },
    onSuccess: (published) => {
      setPage(published);
      setFailure(undefined);
      void queries.invalidateQueries({ queryKey: ["pages"] });
      tell(`Published “${published.title}”`);
    },
    onError: (error) => {
      if (!(error instanceof ApiProblem)) return;
      if (error.status === 409) setConflict(error.current as Page);
      setFieldErrors(byField(error));
      setFailure(error.message);
    },
  });

  return {
    page,
    fields,
    state,
    failure,
    fieldErrors,
    conflict,
    edit,
    saveNow,
    publish: () => publishing.mutate(),
    publishing: publishing.isPending,
    settle(keepMine) {
      if (!conflict) return;
      version.current = conflict.version;
      setConflict(undefined);
      setFailure(undefined);
      if (keepMine) return void saveNow();
      pending.current = {};
      setPage(conflict);
      setFields(pickFields(conflict));
      setState("saved");
    },
  };
}

function pickFields({ path, title, description, category, inNavigation }: Page): DraftFields {
  return { path, title, description, category, inNavigation };
}

function byField(problem: ApiProblem): Record<string, string> {
  return Object.fromEntries(problem.errors.map(({ path, message }) => [path, message]));
}
