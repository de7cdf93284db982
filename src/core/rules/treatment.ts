/** How search engines are told to take an outside link, the strongest statement first. */
export const TREATMENTS = ["sponsored", "ugc", "nofollow", "plain"] as const;
export type Treatment = (typeof TREATMENTS)[number];

/** The treatment that these delivered rel tokens come to. */
export function treatmentOf(rel: readonly string[]): Treatment {
  return TREATMENTS.find((one) => rel.includes(one)) ?? "plain";
}
