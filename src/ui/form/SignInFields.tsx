import { useState } from "react";
import { useFormContext } from "react-hook-form";
import { TextField } from "./fields.tsx";

/** What somebody signs in with; the code of a second factor once it is asked for. */
export function SignInFields() {
  const { errors } = useFormContext().formState;
  const [isCodeAsked, askCode] = useState(false);
  if (errors.code && !isCodeAsked) askCode(true);
  return (
    <>
      <TextField
        name="email"
        label="Mail address"
        type="email"
        autoComplete="username"
        autoFocus
        className="py-2"
      />
      <TextField
        name="password"
        label="Password"
        type="password"
        autoComplete="current-password"
        className="py-2"
      />
      {isCodeAsked ? (
        <TextField name="code" label="Code" autoComplete="one-time-code" autoFocus className="py-2" mono />
      ) : null}
    </>
  );
}
