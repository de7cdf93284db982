import { ToggleGroup } from "radix-ui";

/** One of a few, side by side. */
export function Choice<T extends string>(props: {
  label: string;
  value: T;
  options: readonly { value: T; word: string }[];
  onChange: (value: T) => void;
}) {
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={props.label}
      value={props.value}
      onValueChange={(value) => value && props.onChange(value as T)}
      className="inline-flex flex-wrap rounded border border-line bg-sunk p-0.5"
    >
      {props.options.map(({ value, word }) => (
        <ToggleGroup.Item
          key={value}
          value={value}
          className="rounded-[3px] px-2.5 py-0.5 text-quiet hover:text-ink data-[state=on]:bg-sheet data-[state=on]:font-medium data-[state=on]:text-ink data-[state=on]:shadow-sm"
        >
          {word}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
