/** Something that was done, told for some seconds; destructive acts carry their undo. */
export interface Notice {
  id: number;
  text: string;
  tone: "done" | "failed";
  undo?: () => void;
  /** What its undo is called where it is not that. */
  undoWord?: string;
}

type Listener = (notices: readonly Notice[]) => void;

const SECONDS = 12;
/** An undo stays until it is dismissed, or this long. */
const UNDO_SECONDS = 30;
const MAX_SHOWN = 4;
let notices: readonly Notice[] = [];
let next = 1;
const listeners = new Set<Listener>();

/** Tells the person something, in the corner of whatever screen they are on. */
export function notify(
  text: string,
  options: { tone?: Notice["tone"]; undo?: () => void; undoWord?: string } = {},
): void {
  const notice: Notice = {
    id: next++,
    text,
    tone: options.tone ?? "done",
    undo: options.undo,
    undoWord: options.undoWord,
  };
  const all = [...notices, notice];
  // Where there are too many, the oldest one goes that carries no undo.
  const spare =
    all.length > MAX_SHOWN ? (all.find((one) => !one.undo && one !== notice) ?? all[0]) : undefined;
  show(all.filter((one) => one !== spare));
  clocks.set(notice.id, { left: (notice.undo ? UNDO_SECONDS : SECONDS) * 1_000, since: undefined });
  if (held.size === 0) run(notice.id);
}

export function dismiss(id: number): void {
  pause(id);
  clocks.delete(id);
  show(notices.filter((notice) => notice.id !== id));
}

export function subscribe(listener: Listener): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

export function currentNotices(): readonly Notice[] {
  return notices;
}

interface Clock {
  left: number;
  since: number | undefined;
  timer?: ReturnType<typeof setTimeout>;
}

const clocks = new Map<number, Clock>();
const held = new Set<"pointer" | "focus">();

/** Stops the time of all notices while they are pointed at or one of them has the focus. */
export function holdNotices(by: "pointer" | "focus", isHeld: boolean): void {
  if (isHeld) held.add(by);
  else held.delete(by);
  for (const id of clocks.keys()) {
    if (held.size > 0) pause(id);
    else run(id);
  }
}

function run(id: number): void {
  const clock = clocks.get(id);
  if (!clock || clock.since !== undefined) return;
  clock.since = Date.now();
  clock.timer = setTimeout(() => dismiss(id), clock.left);
}

function pause(id: number): void {
  const clock = clocks.get(id);
  if (!clock || clock.since === undefined) return;
  clearTimeout(clock.timer);
  clock.left = Math.max(0, clock.left - (Date.now() - clock.since));
  clock.since = undefined;
}

function show(list: readonly Notice[]): void {
  notices = list;
  for (const listener of listeners) listener(notices);
}
