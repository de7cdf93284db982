import type { SelectHTMLAttributes } from "react";

/** A choice from a list that is short enough to be looked through, as forms, filters and rows of tables have it. */
export function Select({
  options,
  className = "",
  ...more
}: SelectHTMLAttributes<HTMLSelectElement> & {
  options: readonly (readonly [value: string, word: string])[];
}) {
  return (
    <select {...more} className={`field ${className}`}>
      {options.map(([value, word]) => (
        <option key={value} value={value}>
          {word}
        </option>
      ))}
    </select>
  );
}
