import type { Plugin } from "vite";

export function fewFiles(): Plugin;
export function circleOf(
  bundle: Readonly<Record<string, { imports?: readonly string[] }>>,
): string[] | undefined;
