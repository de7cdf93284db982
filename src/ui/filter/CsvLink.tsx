import { Download } from "lucide-react";
import * as say from "../words.ts";

/** What a list shows, as a table to take away. */
export function CsvLink({ href }: { href: string }) {
  return (
    <a className="action py-1 text-sm" href={href} download>
      <Download size={14} aria-hidden /> {say.csv}
    </a>
  );
}
