import { ChevronDown } from "lucide-react";
import { useState, type ComponentProps, type KeyboardEvent } from "react";
import { later } from "../../ui/frame/later.tsx";
import type { SiteMenuProps } from "./site-menu-props.ts";
import { SITE_NAME } from "./site-name.ts";

const OpenSiteMenu = later(
  async () => (await import("./OpenSiteMenu.tsx")).default,
  ({ site }: SiteMenuProps) => <Name name={site.name} />,
);

/** Behind the site's name is its menu; it stands on every screen, and is fetched when somebody goes there. */
export function SiteMenu(props: SiteMenuProps) {
  const [isWanted, want] = useState(false);
  const onKeyDown = (event: KeyboardEvent): void => {
    if (event.key !== "ArrowDown") return;
    event.preventDefault();
    want(true);
  };
  if (isWanted) return <OpenSiteMenu {...props} />;
  return (
    <Name
      name={props.site.name}
      onPointerEnter={OpenSiteMenu.fetchSoon}
      onFocus={OpenSiteMenu.fetchSoon}
      onClick={() => want(true)}
      onKeyDown={onKeyDown}
    />
  );
}

function Name({ name, ...events }: { name: string } & ComponentProps<"button">) {
  return (
    <button type="button" aria-haspopup="menu" aria-expanded={false} className={SITE_NAME} {...events}>
      {name} <ChevronDown size={15} aria-hidden />
    </button>
  );
}
