import type { Network } from "../../core/programs/program.ts";
import type { Site } from "../../core/sites/site.ts";
import { asOptions } from "../../ui/choose/options.ts";
import { ChooseField, ChooseManyField } from "../../ui/form/choose-fields.tsx";
import { useHostOptions } from "../ledger/known-hosts.ts";
import * as say from "./words.ts";

/** A network: one that is known, or a new one by its name. */
export function NetworkField(props: {
  name: string;
  networks: readonly Network[];
  onChosen?: (name: string) => void;
}) {
  return (
    <ChooseField
      name={props.name}
      label={say.network}
      isFree
      options={asOptions(props.networks.map(({ name }) => name))}
      {...(props.onChosen ? { onChosen: props.onChosen } : {})}
    />
  );
}

/** Hosts that links go to: such as are known, or new ones. */
export function HostsField(props: { site: Site; name: string; label: string; placeholder?: string }) {
  const { site, ...field } = props;
  return <ChooseManyField {...field} isFree options={useHostOptions(site)} between={/[\s,]/} mono />;
}
