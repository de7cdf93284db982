export const CONVERSION_KINDS = ["sale", "lead", "click"] as const;

export const CONVERSION_STATES = ["pending", "approved", "reversed"] as const;

export type ConversionKind = (typeof CONVERSION_KINDS)[number];

export type ConversionState = (typeof CONVERSION_STATES)[number];

export const EARNINGS_BY = ["program", "page", "subId", "day", "month", "network"] as const;
