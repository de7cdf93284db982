import { Switch } from "radix-ui";
import type { Route } from "../../core/objects/route.ts";
import type { Site } from "../../core/objects/site.ts";
import { useChangeRoute } from "./use-routes.ts";

/** Switches a route on and off; its address stays reserved either way. */
export function RouteSwitch({ site, route }: { site: Site; route: Route }) {
  const change = useChangeRoute(site);
  return (
    <Switch.Root
      checked={route.enabled}
      disabled={change.isPending}
      aria-label={`${route.address} is ${route.enabled ? "on" : "off"}`}
      onCheckedChange={(enabled) => change.mutate({ route, change: { enabled } })}
      className="h-5 w-9 rounded-full border border-line bg-sunk data-[state=checked]:border-accent data-[state=checked]:bg-accent"
    >
      <Switch.Thumb className="block size-4 translate-x-0.5 rounded-full bg-quiet transition-transform data-[state=checked]:translate-x-4 data-[state=checked]:bg-accent-ink" />
    </Switch.Root>
  );
}
