import { X } from "lucide-react";
import type { RouteKind } from "../../../core/routes/route.ts";
import type { Site } from "../../../core/sites/site.ts";
import { setAddressState, useAddressState } from "../../../ui/client/url-state.ts";
import { RouteForm } from "../form/RouteForm.tsx";
import { OpenRoute } from "./OpenRoute.tsx";

const NEW: Readonly<Record<string, { kind: RouteKind; title: string }>> = {
  "new-short": { kind: "short", title: "New short link" },
  "new-redirect": { kind: "redirect", title: "New redirect" },
  "new-gone": { kind: "gone", title: "New gone address" },
};

/** Beside the table: a new route, or the one that was opened. */
export function RoutePanel({ site, open }: { site: Site; open: string }) {
  const [to] = useAddressState("to");
  const [at] = useAddressState("at");
  const close = (): void => setAddressState({ open: "", to: "", at: "" });
  const made = NEW[open];
  return (
    <aside
      aria-label={made?.title ?? "Route"}
      className="sticky top-16 overflow-auto rounded border border-line bg-sheet p-4 lg:max-h-[calc(100vh-5rem)]"
      onKeyDown={(event) => event.key === "Escape" && close()}
    >
      <button className="absolute top-3 right-3 text-quiet hover:text-ink" aria-label="Close" onClick={close}>
        <X size={17} aria-hidden />
      </button>
      {made ? (
        <>
          <h2 className="mb-3 font-semibold">{made.title}</h2>
          <RouteForm
            key={to + at}
            site={site}
            kind={made.kind}
            start={{ destination: to, address: at }}
            onSaved={(route) => setAddressState({ open: route.id, to: "", at: "" })}
          />
        </>
      ) : (
        <OpenRoute site={site} id={open} />
      )}
    </aside>
  );
}
