// ISO 4217, list one (active codes): two decimals unless it is named below. The runtime's own data follow usage instead,
// and differ from one to the next.
const ACTIVE =
  "AED AFN ALL AMD AOA ARS AUD AWG AZN BAM BBD BDT BHD BIF BMD BND BOB BOV BRL BSD BTN BWP BYN BZD CAD CDF CHE CHF CHW CLF CLP CNY COP COU CRC CUP CVE CZK DJF DKK DOP DZD EGP ERN ETB EUR FJD FKP GBP GEL GHS GIP GMD GNF GTQ GYD HKD HNL HTG HUF IDR ILS INR IQD IRR ISK JMD JOD JPY KES KGS KHR KMF KPW KRW KWD KYD KZT LAK LBP LKR LRD LSL LYD MAD MDL MGA MKD MMK MNT MOP MRU MUR MVR MWK MXN MXV MYR MZN NAD NGN NIO NOK NPR NZD OMR PAB PEN PGK PHP PKR PLN PYG QAR RON RSD RUB RWF SAR SBD SCR SDG SEK SGD SHP SLE SOS SRD SSP STN SVC SYP SZL THB TJS TMT TND TOP TRY TTD TWD TZS UAH UGX USD USN UYI UYU UYW UZS VED VES VND VUV WST XAF XCD XCG XOF XPF YER ZAR ZMW ZWG";
// Withdrawn lately: reports of earlier years hold them.
const WITHDRAWN = "ANG BGN CUC HRK LTL SLL ZWL";
const OTHERS: Readonly<Record<string, number>> = {
  ...all("BIF CLP DJF GNF ISK JPY KMF KRW PYG RWF UGX UYI VND VUV XAF XOF XPF", 0),
  ...all("BHD IQD JOD KWD LYD OMR TND", 3),
  ...all("CLF UYW", 4),
};

const DIGITS: ReadonlyMap<string, number> = new Map(
  `${ACTIVE} ${WITHDRAWN}`.split(" ").map((code) => [code, OTHERS[code] ?? 2]),
);

/** How many decimals a currency has (ISO 4217); undefined when there is no such currency. */
export function currencyDigits(currency: string): number | undefined {
  return DIGITS.get(currency);
}

function all(codes: string, digits: number): Record<string, number> {
  return Object.fromEntries(codes.split(" ").map((code) => [code, digits]));
}
