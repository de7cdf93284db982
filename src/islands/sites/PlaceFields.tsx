import { getCountries } from "libphonenumber-js/min";
import { ChooseField } from "../../ui/form/choose-fields.tsx";
import { SelectField } from "../../ui/form/fields.tsx";
import { countryName, languageOptions, timeZoneOptions } from "./locale-options.ts";
import * as say from "./words.ts";

const TIME_ZONES = timeZoneOptions();
const COUNTRIES = getCountries()
  .map((code): [string, string] => [code, countryName(code)])
  .sort(([, a], [, b]) => a.localeCompare(b, "en"));

/** In which language and time zone a site's dates are, and whose phone numbers it has. */
export function PlaceFields() {
  return (
    <>
      <div className="grid gap-3 grid-cols-[minmax(0,1fr)] sm:grid-cols-2">
        <ChooseField name="language" label={say.languageOfDatesNumbersAndMoney} options={languageOptions} />
        <ChooseField
          name="timeZone"
          label={say.timeZone}
          none={say.thatOfWhoeverLooks}
          options={TIME_ZONES}
        />
      </div>
      <SelectField
        name="country"
        label={say.country}
        className="w-64"
        hint={say.aPhoneNumberThatIsWrittenWithout}
        options={[["", "none"], ...COUNTRIES]}
      />
    </>
  );
}
