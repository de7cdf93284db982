import type { Role } from "../../core/people/choices.ts";
import { DropdownMenu } from "radix-ui";
import { ChevronDown } from "lucide-react";
import type { SiteMenuProps } from "./site-menu-props.ts";
import { SITE_NAME } from "./site-name.ts";
import * as say from "./words.ts";

/** The menu behind the site's name, open: its settings, other sites, and the way out. */
export default function OpenSiteMenu({ site, sites, person, mayMakeSites }: SiteMenuProps) {
  const leave = async (): Promise<void> => {
    await fetch("/session", { method: "DELETE" });
    location.assign("/sign-in");
  };
  return (
    <DropdownMenu.Root defaultOpen modal={false}>
      <DropdownMenu.Trigger className={SITE_NAME}>
        {site.name} <ChevronDown size={15} aria-hidden />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal container={document.querySelector("header")}>
        <DropdownMenu.Content
          align="end"
          className="z-50 min-w-60 rounded border border-line bg-sheet p-1 shadow-xl"
        >
          <DropdownMenu.Label className="px-3 py-1 text-sm text-quiet">{person}</DropdownMenu.Label>
          <Item href={`/${site.key}/account`}>{say.yourAccount}</Item>
          <Item href={`/${site.key}/people`} needs="owner">
            {say.people}
          </Item>
          <Item href={`/${site.key}/history`} needs="editor">
            {say.history}
          </Item>
          <Item href={`/${site.key}/bin`} needs="editor">
            {say.bin}
          </Item>
          <Item href={`/${site.key}/settings`}>{say.settings}</Item>
          <Item href={`/${site.key}/jobs`}>{say.backgroundTasks}</Item>
          <Item href="/api/v1/docs">{say.theApi}</Item>
          <Item href={site.hosts.find(({ role }) => role === "primary")!.url} external>
            {say.theSiteAsReadersGetIt}
          </Item>
          {sites
            .filter(({ key }) => key !== site.key)
            .map((other) => (
              <Item key={other.id} href={`/${other.key}/pages`}>
                {other.name}
              </Item>
            ))}
          {mayMakeSites ? <Item href={`/${site.key}/new-site`}>{say.aNewSite}</Item> : null}
          <DropdownMenu.Item
            className="rounded px-3 py-1.5 outline-none data-highlighted:bg-wash"
            onSelect={() => void leave()}
          >
            {say.signOut}
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

function Item({
  href,
  external,
  needs,
  children,
}: {
  href: string;
  external?: boolean;
  needs?: Role;
  children: string;
}) {
  return (
    <DropdownMenu.Item asChild>
      <a
        className="block rounded px-3 py-1.5 outline-none data-highlighted:bg-wash"
        href={href}
        data-needs={needs}
        data-even-at-rest={needs ? "" : undefined}
        {...(external ? { target: "_blank", rel: "noopener" } : {})}
      >
        {children}
      </a>
    </DropdownMenu.Item>
  );
}
