import { useRef, type ReactNode } from "react";

/** A button that lets a person choose files, several at once; for those who may change something. */
export function ChooseFiles(props: {
  /** What the files are for, read out by screen readers. */
  label: string;
  accept?: string;
  className: string;
  onChoose: (files: readonly File[]) => void;
  children: ReactNode;
}) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <button
        type="button"
        data-needs="editor"
        className={props.className}
        onClick={() => input.current?.click()}
      >
        {props.children}
      </button>
      <input
        ref={input}
        type="file"
        multiple
        hidden
        accept={props.accept}
        aria-label={props.label}
        onChange={(event) => {
          props.onChoose([...(event.target.files ?? [])]);
          event.target.value = "";
        }}
      />
    </>
  );
}
