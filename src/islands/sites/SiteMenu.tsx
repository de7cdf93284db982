import { ChevronDown } from "lucide-react";
import { lazy, Suspense, useState, type KeyboardEvent } from "react";
import type { SiteMenuProps } from "./site-menu-props.ts";
import { SITE_NAME } from "./site-name.ts";

const fetchMenu = () => import("./OpenSiteMenu.tsx");
const OpenSiteMenu = lazy(fetchMenu);

function fetchSoon(): void {
  // What cannot be fetched now is asked for again when it is to be shown.
  void Promise.allSettled([fetchMenu()]);
}

/** Behind the site's name is its menu; it stands on every screen, and is fetched when somebody goes there. */
export function SiteMenu(props: SiteMenuProps) {
  const [isWanted, want] = useState(false);
  const onKeyDown = (event: KeyboardEvent): void => {
    if (event.key !== "ArrowDown") return;
    event.preventDefault();
    want(true);
  };
  const name = (
    <button
      type="button"
      aria-haspopup="menu"
      aria-expanded={false}
      className={SITE_NAME}
      onPointerEnter={fetchSoon}
      onFocus={fetchSoon}
      onClick={() => want(true)}
      onKeyDown={onKeyDown}
    >
      {props.site.name} <ChevronDown size={15} aria-hidden />
    </button>
  );
  if (!isWanted) return name;
  return (
    <Suspense fallback={name}>
      <OpenSiteMenu {...props} />
    </Suspense>
  );
}
