import { Switch } from "radix-ui";

/** Something that is on or off, switched at once. */
export function Toggle(props: {
  label: string;
  on: boolean;
  disabled: boolean;
  /** What it was switched to is being saved: it keeps the focus, and takes nothing meanwhile. */
  isBusy?: boolean;
  onChange: (on: boolean) => void;
}) {
  return (
    <Switch.Root
      checked={props.on}
      disabled={props.disabled}
      aria-label={props.label}
      aria-busy={props.isBusy}
      onCheckedChange={(on) => {
        if (!props.isBusy) props.onChange(on);
      }}
      className="h-5 w-9 shrink-0 rounded-full border border-line bg-sunk data-[state=checked]:border-accent data-[state=checked]:bg-accent"
    >
      <Switch.Thumb className="block size-4 translate-x-0.5 rounded-full bg-quiet transition-transform data-[state=checked]:translate-x-4 data-[state=checked]:bg-accent-ink" />
    </Switch.Root>
  );
}
