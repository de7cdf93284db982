export const root: string;
export function giveUp(sentence: string): never;
export function installPackages(): void;
export function installDebian(packages: string[], isThere: () => boolean, purpose: string): void;
