/** Something that was done, told for some seconds; destructive acts carry their undo. */
export interface Notice {
  id: number;
  text: string;
  tone: "done" | "failed";
  undo?: () => void;
}

type Listener = (notices: readonly Notice[]) => void;

const SECONDS = 12;
let notices: readonly Notice[] = [];
let next = 1;
const listeners = new Set<Listener>();

/** Tells the person something, in the corner of whatever screen they are on. */
export function tell(text: string, options: { tone?: Notice["tone"]; undo?: () => void } = {}): void {
  const notice: Notice = { id: next++, text, tone: options.tone ?? "done", undo: options.undo };
  show([...notices, notice].slice(-4));
  setTimeout(() => dismiss(notice.id), SECONDS * 1000);
}

export function dismiss(id: number): void {
  show(notices.filter((notice) => notice.id !== id));
}

export function listen(listener: Listener): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

export function currentNotices(): readonly Notice[] {
  return notices;
}

function show(list: readonly Notice[]): void {
  notices = list;
  for (const listener of listeners) listener(notices);
}
