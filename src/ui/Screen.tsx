import { QueryClientProvider } from "@tanstack/react-query";
import { Tooltip } from "radix-ui";
import type { ReactNode } from "react";
import { queries } from "./api.ts";

/** What every island stands in: the shared query layer and tooltips. */
export function Screen({ children }: { children: ReactNode }) {
  return (
    <QueryClientProvider client={queries}>
      <Tooltip.Provider delayDuration={400}>{children}</Tooltip.Provider>
    </QueryClientProvider>
  );
}
