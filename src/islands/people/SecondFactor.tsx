import { useQuery } from "@tanstack/react-query";
import { Copy } from "lucide-react";
import { useState } from "react";
import type { SecondFactorBegun } from "../../core/people/second-factor.ts";
import { api, messageOf } from "../../ui/client/api.ts";
import { asking, refresh } from "../../ui/client/queries.ts";
import { TextField } from "../../ui/form/fields.tsx";
import { Form, SaveButton } from "../../ui/form/Form.tsx";
import { useSavedForm } from "../../ui/form/use-saved-form.ts";
import { when } from "../../ui/format/format.ts";
import { copyText } from "../../ui/keys/copy.ts";
import { notify } from "../../ui/notices/notices.ts";
import * as say from "./words.ts";

/** One's second factor: set up, confirmed, its recovery codes, and taken away. */
export function SecondFactor() {
  const factor = useQuery(asking("GET /me/second-factor"));
  const [begun, setBegun] = useState<SecondFactorBegun>();
  const [recovery, setRecovery] = useState<readonly string[]>();
  if (factor.isError) return <p className="text-bad">{messageOf(factor.error)}</p>;
  if (!factor.data) return <p className="text-quiet">{say.fetching}</p>;
  const { since, recoveryLeft } = factor.data;
  const told = (codes: readonly string[]): void => {
    setBegun(undefined);
    setRecovery(codes);
    void refresh("GET /me/second-factor");
  };
  return (
    <div className="grid max-w-xl gap-3">
      {recovery ? <RecoveryCodes codes={recovery} /> : null}
      {since ? (
        <>
          <p className="text-sm text-quiet">
            {say.inUseSinceRecoveryLeft(
              when(since),
              recoveryLeft,
              recoveryLeft === 1 ? say.codeIs : say.codesAre,
            )}
          </p>
          <PasswordStep
            key="recovery"
            label={say.newRecoveryCodes}
            word={say.makeNewOnes}
            send={async (password) =>
              told((await api("POST /me/second-factor/recovery", { body: { password } })).recovery)
            }
          />
          <PasswordStep
            key="end"
            label={say.withoutItAgain}
            word={say.removeIt}
            send={async (password) => {
              await api("POST /me/second-factor/end", { body: { password } });
              setRecovery(undefined);
              void refresh("GET /me/second-factor");
              notify(say.youSignInWithYourPasswordAlone);
            }}
          />
        </>
      ) : begun ? (
        <ConfirmStep begun={begun} onConfirmed={told} />
      ) : (
        <>
          <p className="text-sm text-quiet">{say.besideYourPasswordSigningInAsksFor}</p>
          <PasswordStep
            key="begin"
            label={say.setUpASecondFactor}
            word={say.setItUp}
            send={async (password) => setBegun(await api("POST /me/second-factor", { body: { password } }))}
          />
        </>
      )}
    </div>
  );
}

function PasswordStep(props: { label: string; word: string; send: (password: string) => Promise<void> }) {
  const form = useSavedForm({
    values: { password: "" },
    save: ({ password }) => props.send(password),
    onSaved: (_, { reset }) => reset(),
  });
  return (
    <Form of={form} label={props.label} className="flex flex-wrap items-start gap-2">
      <TextField
        name="password"
        label={say.thePasswordThatYouHave2(props.label)}
        type="password"
        autoComplete="current-password"
        className="w-64"
      />
      <SaveButton of={form} isPlain className="mt-6">
        {props.word}
      </SaveButton>
    </Form>
  );
}

function ConfirmStep(props: {
  begun: SecondFactorBegun;
  onConfirmed: (recovery: readonly string[]) => void;
}) {
  const { secret, address } = props.begun;
  const code = useQuery({
    queryKey: ["qr", address],
    queryFn: async () => {
      const { default: QRCode } = await import("qrcode");
      return QRCode.toString(address, { errorCorrectionLevel: "M", margin: 4, type: "svg" });
    },
    staleTime: Infinity,
  }).data;
  const form = useSavedForm({
    values: { code: "" },
    save: ({ code: typed }) => api("POST /me/second-factor/confirm", { body: { code: typed } }),
    onSaved: ({ recovery }) => props.onConfirmed(recovery),
  });
  return (
    <div className="flex flex-wrap gap-4">
      {code ? (
        <img
          className="size-40 rounded border border-line bg-[white]"
          src={`data:image/svg+xml,${encodeURIComponent(code)}`}
          alt={say.qrCodeForAnAppThatShows}
        />
      ) : null}
      <Form of={form} label={say.confirmTheSecondFactor} className="grid min-w-0 flex-1 content-start gap-2">
        <p className="text-sm">{say.letYourAppReadThePictureOr}</p>
        <code className="font-mono text-sm wrap-anywhere">{secret.match(/.{1,4}/g)!.join(" ")}</code>
        <TextField
          name="code"
          label={say.theCodeThatItShows}
          autoComplete="one-time-code"
          autoFocus
          mono
          className="w-40"
        />
        <SaveButton of={form} className="justify-self-start">
          {say.fromNowOnWithIt}
        </SaveButton>
      </Form>
    </div>
  );
}

function RecoveryCodes({ codes }: { codes: readonly string[] }) {
  return (
    <div role="status" className="rounded border border-good bg-sheet p-3">
      <p>{say.shouldYourPhoneBeLostEachOf}</p>
      <ul className="my-2 grid grid-cols-2 gap-x-6 font-mono sm:grid-cols-5">
        {codes.map((code) => (
          <li key={code}>{code}</li>
        ))}
      </ul>
      <button className="action" onClick={() => void copyText(codes.join("\n"))}>
        <Copy size={14} aria-hidden /> {say.copyThem}
      </button>
    </div>
  );
}
