export function pack(into: string, built: string): Promise<string>;

/** Packs the command for scripts by itself: it stands on nothing else. Answers the path of its file. */
export function packCommand(into: string, built: string): Promise<string>;
