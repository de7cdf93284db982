import type { Route } from "../../../core/routes/route.ts";
import type { Site } from "../../../core/sites/site.ts";
import { Toggle } from "../../../ui/fields/Toggle.tsx";
import { mayHere } from "../../../ui/client/rights.ts";
import { useChangeRoute } from "../use-routes.ts";
import * as say from "../words.ts";

/** Switches a route on and off; its address stays reserved either way. */
export function RouteSwitch({ site, route }: { site: Site; route: Route }) {
  const change = useChangeRoute(site);
  return (
    <Toggle
      label={say.is(route.address, route.enabled ? say.on : say.off)}
      on={route.enabled}
      disabled={!mayHere({ role: "editor" })}
      isBusy={change.isPending}
      onChange={(enabled) => change.mutate({ route, change: { enabled } })}
    />
  );
}
