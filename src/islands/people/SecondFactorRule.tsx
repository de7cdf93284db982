import { useMutation, useQuery } from "@tanstack/react-query";
import { api, messageOf } from "../../ui/client/api.ts";
import { asking, refresh } from "../../ui/client/queries.ts";
import { notify } from "../../ui/notices/notices.ts";
import * as say from "./words.ts";

/** Whether everybody signs in with a second factor. */
export function SecondFactorRule() {
  const rule = useQuery(asking("GET /installation")).data;
  const change = useMutation({
    mutationFn: (secondFactor: "optional" | "required") =>
      api("PATCH /installation", { body: { secondFactor } }),
    onSettled: () => refresh("GET /installation"),
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
  return (
    <label className="mb-3 flex items-center gap-2">
      <input
        type="checkbox"
        checked={rule?.secondFactor === "required"}
        disabled={!rule || change.isPending}
        onChange={(event) => change.mutate(event.target.checked ? "required" : "optional")}
      />
      {say.everybodySignsInWithASecondFactor}
    </label>
  );
}
