export function buildWhenStale(folder: string): Promise<void>;
