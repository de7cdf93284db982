import type { LucideIcon } from "lucide-react";
import type { ReactNode } from "react";

/** What a button that opens something shows, and what opens. */
export interface PopupProps {
  /** What opens, for who hears it. */
  label: string;
  /** What stands on the button. */
  sign: LucideIcon;
  word: string;
  /** Classes of what opens. */
  className?: string;
  children: ReactNode;
}
