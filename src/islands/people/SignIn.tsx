import { useState } from "react";
import { useForm } from "react-hook-form";
import { zodResolver } from "@hookform/resolvers/zod";
import { signInSchema } from "../../core/people/person.ts";
import { signIn } from "../../ui/client/session.ts";
import { FieldRow } from "../../ui/fields/FieldRow.tsx";

/** The way in. */
export function SignIn({ to }: { to: string }) {
  const [refusal, setRefusal] = useState<string>();
  const form = useForm({ resolver: zodResolver(signInSchema), defaultValues: { email: "", password: "" } });
  const { errors, isSubmitting } = form.formState;
  const enter = form.handleSubmit(async (input) => {
    setRefusal(undefined);
    try {
      const refused = await signIn(input);
      if (refused === undefined) location.assign(to);
      else setRefusal(refused);
    } catch {
      setRefusal("The workspace cannot be reached. Is it running?");
    }
  });
  return (
    <form className="w-full max-w-sm" onSubmit={(event) => void enter(event)} noValidate>
      <h1 className="text-3xl font-semibold tracking-tight">Map Rope</h1>
      <p className="mt-1 mb-6 text-quiet">Every way out of your site, made, marked and watched.</p>
      <div className="grid gap-3">
        <FieldRow label="Mail address" error={errors.email?.message}>
          {(attributes) => (
            <input
              {...attributes}
              {...form.register("email")}
              type="email"
              autoComplete="username"
              autoFocus
              className="field py-2"
            />
          )}
        </FieldRow>
        <FieldRow label="Password" error={errors.password?.message}>
          {(attributes) => (
            <input
              {...attributes}
              {...form.register("password")}
              type="password"
              autoComplete="current-password"
              className="field py-2"
            />
          )}
        </FieldRow>
        {refusal ? (
          <p role="alert" className="text-bad">
            {refusal}
          </p>
        ) : null}
        <button className="action action-main justify-center py-2" disabled={isSubmitting}>
          {isSubmitting ? "Signing in…" : "Sign in"}
        </button>
      </div>
    </form>
  );
}
