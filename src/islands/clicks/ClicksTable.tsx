import type { ClicksAnswer } from "../../core/objects/clicks.ts";

/** The chart's numbers as a table, newest day first. */
export function ClicksTable({ answer }: { answer: ClicksAnswer }) {
  return (
    <table className="w-full text-right tabular-nums">
      <thead className="text-sm text-quiet">
        <tr className="border-b border-line">
          {["Day", "Clicks", "Visitors", "Robots", "Prefetches", "HEAD"].map((word, index) => (
            <th key={word} scope="col" className={`py-1.5 font-medium ${index === 0 ? "text-left" : ""}`}>
              {word}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {[...answer.items].reverse().map((row) => (
          <tr key={row.key} className="border-b border-line/60">
            <th scope="row" className="py-1 text-left font-normal">
              {row.label}
            </th>
            <td>{row.clicks}</td>
            <td>{row.visitors}</td>
            <td>{row.bots}</td>
            <td>{row.prefetches}</td>
            <td>{row.heads}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
