import { useMutation } from "@tanstack/react-query";
import { messageOf } from "../../ui/client/api.ts";
import { refresh } from "../../ui/client/queries.ts";
import { notify } from "../../ui/notices/notices.ts";

/** Something done to people or invitations: the lists are fetched anew, what is refused is told. */
export function usePeopleChange<T, R>(change: (input: T) => Promise<R>) {
  return useMutation({
    mutationFn: change,
    onSuccess: () => refresh("GET /sites/:site/people", "GET /people"),
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
}
