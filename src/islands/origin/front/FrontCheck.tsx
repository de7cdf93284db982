import { useMutation } from "@tanstack/react-query";
import type { Site } from "../../../core/sites/site.ts";
import { api, messageOf } from "../../../ui/client/api.ts";
import { copyText } from "../../../ui/keys/copy.ts";
import * as say from "../words.ts";

const TONES = { good: "text-good", hint: "text-warn", fault: "text-bad" } as const;

/** Asks the origin as a reader would through us, and gives the lines that send readers here. */
export function FrontCheck({ site }: { site: Site }) {
  const check = useMutation({
    mutationFn: () => api("POST /sites/:site/origin/front/check", { site: site.id }),
  });
  return (
    <section
      aria-label={say.whatWouldHappen}
      className="grid gap-2 border-t border-line pt-4 grid-cols-[minmax(0,1fr)]"
    >
      <h2 className="font-semibold">{say.whatWouldHappen}</h2>
      <button
        data-needs="editor"
        className="action justify-self-start"
        disabled={check.isPending}
        onClick={() => check.mutate()}
      >
        {check.isPending ? say.asking : say.askTheOrigin}
      </button>
      {check.isError ? (
        <p role="alert" className="text-bad">
          {messageOf(check.error)}
        </p>
      ) : null}
      {check.data ? (
        <div role="status" className="grid gap-3 grid-cols-[minmax(0,1fr)]">
          <ul className="grid gap-1">
            {check.data.findings.map(({ about, severity, message }) => (
              <li key={about + message}>
                <span className={`font-medium ${TONES[severity]}`}>{say.severities[severity]}</span> {message}
              </li>
            ))}
          </ul>
          <Lines word={say.toTryIt} text={check.data.hosts} />
          <Lines word={say.nginxBefore} text={check.data.nginx} />
          <Lines word={say.inDns} text={check.data.dns} />
        </div>
      ) : null}
    </section>
  );
}

function Lines({ word, text }: { word: string; text: string }) {
  return (
    <div>
      <p className="flex items-baseline justify-between gap-2 text-sm">
        <span className="font-medium">{word}</span>
        <button className="py-1 text-accent underline" onClick={() => void copyText(text)}>
          {say.copy}
          <span className="sr-only"> {word}</span>
        </button>
      </p>
      {/* Long lines are moved sideways, by keys too. */}
      <pre tabIndex={0} aria-label={word} className="overflow-x-auto rounded bg-sunk p-2 font-mono text-xs">
        {text}
      </pre>
    </div>
  );
}
