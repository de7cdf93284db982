import { useController } from "react-hook-form";
import { ChooseMany, ChooseOne } from "../choose/choose.tsx";
import type { ComboboxProps } from "../choose/Combobox.tsx";
import type { MultiChoiceProps } from "../choose/MultiChoice.tsx";
import { Row, type FieldProps } from "./Row.tsx";

type Chosen<P, Own extends keyof P> = FieldProps &
  Omit<P, Own | "attributes" | "onChange"> & {
    onChosen?: (value: string) => void;
  };

/** One of many, found by typing a part of it; `isFree` where it may be something new. */
export function ChooseField({ onChosen, ...props }: Chosen<ComboboxProps, "value">) {
  const { name, label, isLabelHidden, hint, error, ...box } = props;
  const { field } = useController<Record<string, string>>({ name });
  return (
    <Row {...{ name, label, isLabelHidden, hint, error }}>
      {(attributes) => (
        <ChooseOne
          {...box}
          attributes={attributes}
          value={field.value ?? ""}
          onChange={(value) => {
            field.onChange(value);
            onChosen?.(value);
          }}
        />
      )}
    </Row>
  );
}

/** Several of many; the field's value is a list. */
export function ChooseManyField(props: Omit<Chosen<MultiChoiceProps, "values">, "onChosen">) {
  const { name, label, isLabelHidden, hint, error, ...box } = props;
  const { field } = useController<Record<string, string[]>>({ name });
  return (
    <Row {...{ name, label, isLabelHidden, hint, error }}>
      {(attributes) => (
        <ChooseMany {...box} attributes={attributes} values={field.value ?? []} onChange={field.onChange} />
      )}
    </Row>
  );
}
