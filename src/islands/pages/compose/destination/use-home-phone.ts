import { useEffect, useState } from "react";
import { isLocalPhone } from "../../../../core/address/repair/contact.ts";
import type { Site } from "../../../../core/sites/site.ts";

type HomePhone = (text: string) => string | undefined;

/** Reads numbers as they are dialled in the site's country. The numbering plans are fetched when a text may be one of them. */
export function useHomePhone({ country }: Site, text: string): { homePhone?: HomePhone } {
  const [read, setRead] = useState<{ homePhone?: HomePhone }>({});
  const isWanted = country !== "" && !read.homePhone && isLocalPhone(text.trim());
  useEffect(() => {
    if (!isWanted) return undefined;
    let isHere = true;
    // Without them the number is told to lack its country's code, as it does where no country is set.
    void import("../../../../core/address/repair/home-phone.ts").then(
      ({ homePhone }) => isHere && setRead({ homePhone: (typed) => homePhone(typed, country) }),
      () => undefined,
    );
    return () => void (isHere = false);
  }, [isWanted, country]);
  return read;
}
