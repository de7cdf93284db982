import type { ReactNode } from "react";
import { FormProvider, type FieldValues, type UseFormReturn } from "react-hook-form";

/** Fields that tell what is typed at once; they stand in no form that is sent. */
export function LiveForm<V extends FieldValues>(props: { of: UseFormReturn<V>; children: ReactNode }) {
  return <FormProvider {...props.of}>{props.children}</FormProvider>;
}
