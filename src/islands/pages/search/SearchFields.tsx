import { useFormContext } from "react-hook-form";
import type { WrittenPageSearch } from "../../../core/pages/search.ts";
import type { Page } from "../../../core/pages/page.ts";
import type { Site } from "../../../core/sites/site.ts";
import { ChooseField } from "../../../ui/form/choose-fields.tsx";
import { CheckField, TextField } from "../../../ui/form/fields.tsx";
import { Locked } from "../../../ui/form/Locked.tsx";
import { Behind } from "../../../ui/panel/Behind.tsx";
import { usePictures } from "../../files/use-pictures.ts";
import { languageOptions } from "../../sites/locale-options.ts";
import { ResultPreview } from "./ResultPreview.tsx";
import type { SearchTyped } from "./search-typed.ts";
import * as say from "../words.ts";

/** What search engines and those who pass the page on are told of it, and what they would make of that. */
export function SearchFields(props: { site: Site; page: Page; errors: Record<string, string> }) {
  const { site, page, errors } = props;
  const typed = useFormContext<{ title: string; description: string; search: SearchTyped }>().watch();
  const pictures = usePictures(site);
  const error = (name: keyof WrittenPageSearch) => errors[`search.${name}`];
  return (
    <div className="md:col-span-2">
      <Behind
        word={say.forSearchEnginesAndPreviews}
        says={typed.search.noindex ? say.leftOutOfResultsNoindex : typed.search.title}
      >
        <div className="grid gap-4 md:grid-cols-[minmax(0,1fr)_minmax(0,22rem)]">
          <div className="grid content-start gap-3 sm:grid-cols-2">
            <Locked needs="editor">
              <TextField
                name="search.title"
                label={say.titleForSearchEngines}
                placeholder={typed.title}
                error={error("title")}
              />
              <ChooseField
                name="search.picture"
                label={say.pictureOfPreviews}
                isFree
                hint={say.emptyTheFirstOneOfTheText}
                options={pictures}
                error={error("picture")}
              />
              <TextField
                name="search.canonical"
                label={say.aCopyOf}
                mono
                hint={say.theAddressThatStandsInResultsIn}
                error={error("canonical")}
              />
              <ChooseField
                name="search.language"
                label={say.languageOfThisPage}
                none={say.thatOfTheSite}
                options={languageOptions}
                error={error("language")}
              />
              <CheckField name="search.noindex">{say.leaveItOutOfResultsSitemapAnd}</CheckField>
            </Locked>
          </div>
          <ResultPreview
            site={site}
            address={page.url}
            title={typed.search.title || typed.title}
            description={typed.description}
            picture={typed.search.picture}
          />
        </div>
      </Behind>
    </div>
  );
}
