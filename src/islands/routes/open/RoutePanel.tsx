import type { RouteKind } from "../../../core/routes/choices.ts";
import type { Site } from "../../../core/sites/site.ts";
import { setAddressState, useAddressState } from "../../../ui/client/url-state.ts";
import { SidePanel } from "../../../ui/panel/SidePanel.tsx";
import { RouteForm } from "../form/RouteForm.tsx";
import { OpenRoute } from "./OpenRoute.tsx";
import * as say from "../words.ts";

const NEW: Readonly<Record<string, { kind: RouteKind; title: string }>> = {
  "new-short": { kind: "short", title: say.newShortLink },
  "new-redirect": { kind: "redirect", title: say.newRedirect },
  "new-gone": { kind: "gone", title: say.newGoneAddress },
};

/** Beside the table: a new route, or the one that was opened. */
export function RoutePanel({ site, open }: { site: Site; open: string }) {
  const [to] = useAddressState("to");
  const [at] = useAddressState("at");
  const close = (): void => setAddressState({ open: "", to: "", at: "" });
  const made = NEW[open];
  return (
    <SidePanel
      label={made?.title ?? say.route}
      of={open}
      title={made?.title ?? say.route}
      className="sticky top-36 z-20 max-h-[calc(100dvh-10rem)] overflow-auto lg:top-16 lg:z-auto lg:max-h-[calc(100vh-5rem)]"
      onClose={close}
    >
      {made ? (
        <RouteForm
          key={to + at}
          site={site}
          kind={made.kind}
          start={{ destination: to, address: at }}
          onSaved={(route) => setAddressState({ open: route.id, to: "", at: "" })}
        />
      ) : (
        <OpenRoute site={site} id={open} />
      )}
    </SidePanel>
  );
}
