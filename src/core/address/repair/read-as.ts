/** The ways in which a person can have meant what they typed. */
export const READINGS = ["outside", "inside", "mail", "phone", "heading"] as const;
export type Reading = (typeof READINGS)[number];

export const READING_WORD: Readonly<Record<Reading, string>> = {
  outside: "an address outside",
  inside: "a path of this site",
  mail: "a mail address",
  phone: "a phone number",
  heading: "a heading in this page",
};

/** Writes typed text as the kind of address that the person says it is; repair and refusal come after. */
export function readAs(text: string, reading: Reading): string {
  const bare = text
    .trim()
    .replace(/^(?:https?:\/\/|mailto:|tel:)/i, "")
    .replace(/^[/#]+/, "");
  switch (reading) {
    case "outside":
      return `https://${bare}`;
    case "inside":
      return `/${bare.replace(/\s+/g, "-")}`;
    case "mail":
      return `mailto:${bare}`;
    case "phone":
      return `tel:${bare.replace(/(?!^\+)[^\d]/g, "")}`;
    case "heading":
      return `#${bare.replace(/\s+/g, "-")}`;
  }
}
