import { QueryClientProvider } from "@tanstack/react-query";
import { useState, type ReactNode } from "react";
import { takeFirstAnswers } from "../client/first-answers.ts";
import { queries } from "../client/queries.ts";
import { serverFrame } from "./frame.ts";

/** The answers of the API that all islands of a screen share: in a browser with those that came along with the screen. */
export function Answers({ children }: { children: ReactNode }) {
  const [client] = useState(() => {
    const frame = serverFrame();
    if (!frame) takeFirstAnswers(queries);
    return frame?.queries ?? queries;
  });
  return <QueryClientProvider client={client}>{children}</QueryClientProvider>;
}
