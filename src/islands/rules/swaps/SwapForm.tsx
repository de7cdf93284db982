import { zodResolver } from "@hookform/resolvers/zod";
import type { Resolver } from "react-hook-form";
import { swapSchema, type Swap } from "../../../core/rules/swaps/swap.ts";
import { Form, SaveButton } from "../../../ui/form/Form.tsx";
import { ChoiceField, TextField, ToggleField } from "../../../ui/form/fields.tsx";
import { useSavedForm } from "../../../ui/form/use-saved-form.ts";
import * as say from "./words.ts";

interface TypedSwap {
  what: Swap["what"];
  name: string;
  find: string;
  replace: string;
  leaveOut: boolean;
  domains: string;
}

function typedOf(swap: Swap | undefined): TypedSwap {
  const empty = { what: "address" as const, name: "", find: "", replace: "", leaveOut: false, domains: "" };
  if (!swap) return empty;
  if (swap.what !== "parameter") return { ...empty, what: swap.what, find: swap.find, replace: swap.replace };
  const { name, find, replace, domains } = swap;
  return {
    what: "parameter",
    name,
    find: find ?? "",
    replace: replace ?? "",
    leaveOut: replace === null,
    domains: domains.join(" "),
  };
}

function swapOf({ what, name, find, replace, leaveOut, domains }: TypedSwap, enabled: boolean): unknown {
  if (what !== "parameter") return { what, enabled, find, replace };
  return {
    what,
    enabled,
    name,
    find: find === "" ? null : find,
    replace: leaveOut ? null : replace,
    domains: domains.split(/[\s,]+/).filter(Boolean),
  };
}

const resolve = zodResolver(swapSchema) as unknown as Resolver<TypedSwap>;
const WHAT = [
  { value: "address", word: say.anAddress },
  { value: "host", word: say.aHost },
  { value: "parameter", word: say.aParameter },
] as const;

/** A swap's own fields; what cannot be taken is said at its field. */
export function SwapForm(props: {
  swap: Swap | undefined;
  onTake: (swap: Swap) => void;
  onClose: () => void;
}) {
  const enabled = props.swap?.enabled ?? true;
  const form = useSavedForm<TypedSwap, Swap>({
    values: typedOf(props.swap),
    async resolver(typed, context, options) {
      const { errors } = await resolve(swapOf(typed, enabled) as never, context, options as never);
      return Object.keys(errors).length > 0
        ? { values: {}, errors: errors as never }
        : { values: typed, errors: {} };
    },
    save: async (typed) => swapSchema.parse(swapOf(typed, enabled)),
    onSaved: props.onTake,
  });
  const what = form.watch("what");
  const leavesOut = form.watch("leaveOut");
  return (
    <div onKeyDown={(event) => event.key === "Escape" && props.onClose()}>
      <Form
        of={form}
        label={say.theSwap}
        needs="editor"
        className="mb-3 grid gap-3 rounded border border-line bg-sheet p-4 grid-cols-[minmax(0,1fr)]"
        actions={
          <div className="flex flex-wrap gap-2">
            <SaveButton of={form}>{say.take}</SaveButton>
            <button type="button" className="action action-plain" onClick={props.onClose}>
              {say.cancel}
            </button>
          </div>
        }
      >
        <ChoiceField name="what" label={say.whatIsSwapped} options={WHAT} />
        {what === "parameter" ? (
          <>
            <TextField name="name" label={say.parameterName} mono />
            <TextField name="find" label={say.onlyWhere} hint={say.onlyWhereHint} mono />
            <ToggleField name="leaveOut" label={say.leaveOutMeans}>
              {say.leaveOut}
            </ToggleField>
            {leavesOut ? null : <TextField name="replace" label={say.isToSay} mono />}
            <TextField name="domains" label={say.ofLinksTo} hint={say.ofLinksToHint} mono />
          </>
        ) : (
          <>
            <TextField name="find" label={what === "host" ? say.hostToLookFor : say.addressToLookFor} mono />
            <TextField name="replace" label={what === "host" ? say.newHost : say.newAddress} mono />
          </>
        )}
      </Form>
    </div>
  );
}
