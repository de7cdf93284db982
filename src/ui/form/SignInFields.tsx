import { useState } from "react";
import { useFormContext } from "react-hook-form";
import { TextField } from "./fields.tsx";
import * as say from "../words.ts";

/** What somebody signs in with; the code of a second factor once it is asked for. */
export function SignInFields() {
  const { errors } = useFormContext().formState;
  const [isCodeAsked, askCode] = useState(false);
  if (errors.code && !isCodeAsked) askCode(true);
  return (
    <>
      <TextField
        name="email"
        label={say.mailAddress}
        type="email"
        autoComplete="username"
        autoFocus
        className="py-2"
      />
      <TextField
        name="password"
        label={say.password}
        type="password"
        autoComplete="current-password"
        className="py-2"
      />
      {isCodeAsked ? (
        <TextField
          name="code"
          label={say.code}
          autoComplete="one-time-code"
          autoFocus
          className="py-2"
          mono
        />
      ) : null}
    </>
  );
}
