import { Copy, ExternalLink, Eye } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import type { Credentials, Program } from "../../../core/programs/program.ts";
import type { Site } from "../../../core/sites/site.ts";
import { notify } from "../../../ui/notices/notices.ts";
import { useKey } from "../../../ui/keys/use-key.ts";
import { CredentialsForm } from "./CredentialsForm.tsx";
import { api, messageOf } from "../../../ui/client/api.ts";
import * as say from "../words.ts";

const SHOWN_MS = 12_000;

/** Signing in: the address one key away, name and password copied without being shown, or shown for some seconds. */
export function Account({ site, program }: { site: Site; program: Program }) {
  const [shown, setShown] = useState<Credentials>();
  const [changing, setChanging] = useState(false);
  const there = useRef<HTMLAnchorElement>(null);
  useKey("s", () => there.current?.click());
  useEffect(() => {
    if (!shown) return;
    const timer = setTimeout(() => setShown(undefined), SHOWN_MS);
    return () => clearTimeout(timer);
  }, [shown]);
  const failed = (error: unknown): void => notify(messageOf(error), { tone: "failed" });
  const fetched = (): Promise<Credentials> =>
    api("POST /sites/:site/programs/:id/credentials/show", { site: site.id, id: program.id });
  const copy = (part: keyof Credentials): void =>
    void fetched()
      .then((all) => navigator.clipboard.writeText(all[part]))
      .then(
        () => notify(part === "password" ? say.thePasswordIsOnTheClipboard : say.theNameIsOnTheClipboard),
        failed,
      );
  const show = (): void => void fetched().then(setShown, failed);
  return (
    <section aria-label={say.signingIn} className="grid gap-2 border-b border-line pb-3">
      <div className="flex flex-wrap gap-2">
        {program.signInAddress ? (
          <a
            ref={there}
            className="action"
            href={program.signInAddress}
            target="_blank"
            rel="noopener noreferrer"
            aria-keyshortcuts="s"
          >
            {say.signInThere} <kbd className="font-mono text-xs text-quiet">s</kbd>{" "}
            <ExternalLink size={14} aria-hidden />
          </a>
        ) : null}
        {program.hasCredentials ? (
          <>
            <button className="action" onClick={() => copy("name")}>
              <Copy size={14} aria-hidden /> {say.copyName}
            </button>
            <button className="action" onClick={() => copy("password")}>
              <Copy size={14} aria-hidden /> {say.copyPassword}
            </button>
            <button className="action" onClick={show}>
              <Eye size={14} aria-hidden /> {say.showBoth}
            </button>
          </>
        ) : null}
        <button data-needs="editor" className="action action-plain" onClick={() => setChanging(!changing)}>
          {program.hasCredentials ? say.changeThem : say.keepANameAndPassword}
        </button>
      </div>
      {shown ? (
        <p role="status" className="rounded bg-wash px-2 py-1 font-mono text-sm">
          {shown.name} · {shown.password}{" "}
          <span className="font-sans text-quiet">{say.hiddenAgainInSomeSecondsNotedIn}</span>
        </p>
      ) : null}
      {changing ? <CredentialsForm site={site} program={program} onDone={() => setChanging(false)} /> : null}
    </section>
  );
}
