import { DropdownMenu } from "radix-ui";
import { ChevronDown } from "lucide-react";
import type { Site } from "../../core/sites/site.ts";

/** Behind the site's name: its settings, other sites, and the way out. */
export function SiteMenu({ site, sites, person }: { site: Site; sites: Site[]; person: string }) {
  const leave = async (): Promise<void> => {
    await fetch("/session", { method: "DELETE" });
    location.assign("/sign-in");
  };
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="flex items-center gap-1.5 py-3 font-semibold whitespace-nowrap">
        {site.name} <ChevronDown size={15} aria-hidden />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          className="z-50 min-w-60 rounded border border-line bg-sheet p-1 shadow-xl"
        >
          <DropdownMenu.Label className="px-3 py-1 text-sm text-quiet">{person}</DropdownMenu.Label>
          <Item href={`/${site.key}/settings`}>Hosts and API tokens</Item>
          <Item href={site.hosts.find(({ role }) => role === "primary")!.url} external>
            The site as readers get it
          </Item>
          {sites
            .filter(({ key }) => key !== site.key)
            .map((other) => (
              <Item key={other.id} href={`/${other.key}/write`}>
                {other.name}
              </Item>
            ))}
          <DropdownMenu.Item
            className="rounded px-3 py-1.5 outline-none data-highlighted:bg-wash"
            onSelect={() => void leave()}
          >
            Sign out
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

function Item({ href, external, children }: { href: string; external?: boolean; children: string }) {
  return (
    <DropdownMenu.Item asChild>
      <a
        className="block rounded px-3 py-1.5 outline-none data-highlighted:bg-wash"
        href={href}
        {...(external ? { target: "_blank", rel: "noopener" } : {})}
      >
        {children}
      </a>
    </DropdownMenu.Item>
  );
}
