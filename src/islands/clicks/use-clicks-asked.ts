import { useAddressState } from "../../ui/client/url-state.ts";

/** Which days and which route the screen asks about, as its address says. */
export function useClicksAsked(): { span: number; from: string; to: string; route: string } {
  const [route] = useAddressState("route");
  const [days] = useAddressState("days");
  const [from] = useAddressState("from");
  const [to] = useAddressState("to");
  return { span: Number(days) || 60, from, to, route };
}
