import { QueryClientProvider } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { queries } from "../client/queries.ts";

/** What every island stands in: the shared query layer. */
export function Screen({ children }: { children: ReactNode }) {
  return <QueryClientProvider client={queries}>{children}</QueryClientProvider>;
}
