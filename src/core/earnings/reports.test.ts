import assert from "node:assert/strict";
import { describe, test } from "node:test";
import fc from "fast-check";
import { reportColumnsSchema, type ReportColumns } from "./earning.ts";
import { currencyDigits } from "./currencies.ts";
import { amountText, clicksToDivideBy, earningsPer100, readAmount } from "./money.ts";
import { guessColumns, rowReader, type RowReader } from "./read-report.ts";
import { possibleOrders, readReportDate } from "./report-date.ts";
import { fillCreative, readSnippet } from "../creatives/snippet.ts";

describe("money", () => {
  test("is read exactly, in the way it was written", () => {
    for (const [text, currency, decimal, minor] of [
      ["12.50", "EUR", ".", 1250],
      ["1,234.5", "USD", ".", 123450],
      ["1.234,56 €", "EUR", ",", 123456],
      ["€ 0,07", "EUR", ",", 7],
      ["-3.10", "GBP", ".", -310],
      ["(3.10)", "GBP", ".", -310],
      ["3,10-", "GBP", ",", -310],
      ["1200", "JPY", ".", 1200],
      ["1.250", "KWD", ".", 1250],
      ["7.5000", "EUR", ".", 750],
      [".5", "EUR", ".", 50],
      ["-0.00", "EUR", ".", 0],
      ["Rs. 500", "INR", ".", 50000],
      ["Rs.1,500.50", "INR", ".", 150050],
      ["12,34,567.00", "INR", ".", 123456700],
      ["1,00,000", "INR", ".", 10000000],
      ["–5.00", "EUR", ".", -500],
      ["−5,00 €", "EUR", ",", -500],
      ["€ -5.00", "EUR", ".", -500],
      ["-€5.00", "EUR", ".", -500],
      ["CHF 5.-", "CHF", ".", 500],
      ["5,– kr.", "SEK", ",", 500],
      ["-CHF 5.–", "CHF", ".", -500],
      ["1'234.50", "CHF", ".", 123450],
      ["1 234,50 zł", "PLN", ",", 123450],
      ["R$ 7,10", "BRL", ",", 710],
      ["EUR 12", "EUR", ".", 1200],
      ["500", "HUF", ".", 50000],
      ["1.250", "IQD", ".", 1250],
      ["+3", "EUR", ".", 300],
    ] as const)
      assert.deepEqual(readAmount(text, currency, decimal), { ok: true, minor }, text);
  });

  test("that is no amount of that currency is refused with the reason", () => {
    for (const [text, currency, decimal, reason] of [
      ["12.345", "EUR", ".", /more decimals/],
      ["1.5", "JPY", ".", /more decimals/],
      ["12,50", "EUR", ".", /no amount/],
      ["1.2.3", "EUR", ".", /no amount/],
      ["", "EUR", ".", /no amount/],
      ["twelve", "EUR", ".", /no amount/],
      ["1e3", "EUR", ".", /no amount/],
      ["12.50", "QQQ", ".", /no currency/],
      ["99999999999999999", "EUR", ".", /too large/],
      ["Ref-12: 5.00", "EUR", ".", /no amount/],
      ["A-12", "EUR", ".", /no amount/],
      ["(-5.00)", "EUR", ".", /no amount/],
      ["-5.00-", "EUR", ".", /no amount/],
      ["(5.00", "EUR", ".", /no amount/],
      ["€5 EUR", "EUR", ".", /no amount/],
      ["USD 5.00", "EUR", ".", /in USD/],
      ["1,234,56", "EUR", ".", /no amount/],
      ["1,2345", "EUR", ".", /no amount/],
      ["1 234'567", "EUR", ".", /no amount/],
      ["5.00 6.00", "EUR", ".", /no amount/],
      ["5 5", "EUR", ".", /no amount/],
      ["1.234.56", "EUR", ",", /no amount/],
    ] as const) {
      const read = readAmount(text, currency, decimal);
      assert.ok(!read.ok, text);
      assert.match(read.reason, reason);
    }
    assert.deepEqual(["JPY", "HUF", "IQD", "CLF", "RSD"].map(currencyDigits), [0, 2, 3, 4, 2]);
    assert.equal(currencyDigits("euro"), undefined);
  });

  test("written and read again it is the same", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -1e12, max: 1e12 }),
        fc.constantFrom("EUR", "JPY", "KWD"),
        (minor, currency) =>
          assert.deepEqual(readAmount(amountText(minor, currency), currency, "."), { ok: true, minor }),
      ),
    );
  });

  test("say which clicks they are divided by: the network's where it counted more than we can", () => {
    for (const [ours, networks, clicks, of] of [
      [10, null, 10, "ours"],
      [10, 25, 25, "networks"],
      [0, 25, 25, "networks"],
      [10, 10, 10, "ours"],
      [10, 4, 10, "ours"],
      [0, null, 0, null],
      [0, 0, 0, null],
    ] as const)
      assert.deepEqual(clicksToDivideBy(ours, networks), { clicks, of });
  });

  test("earnings per 100 clicks are rounded once, and never divide by none", () => {
    assert.equal(earningsPer100(1000, 300), 333);
    assert.equal(earningsPer100(1000, 0), null);
    assert.equal(earningsPer100(-50, 10_000), -1);
    assert.equal(earningsPer100(9_007_199_254_740_991, 100), 9_007_199_254_740_991);
  });
});

describe("a report's dates", () => {
  test("are read in their order, with times and offsets", () => {
    for (const [text, order, iso] of [
      ["2026-11-24", "ymd", "2026-11-24T00:00:00.000Z"],
      ["2026-11-24T23:30:00+02:00", "ymd", "2026-11-24T21:30:00.000Z"],
      ["24.11.2026 08:05", "dmy", "2026-11-24T08:05:00.000Z"],
      ["11/24/2026 8:05 PM", "mdy", "2026-11-24T20:05:00.000Z"],
      ["24 Nov 2026", "dmy", "2026-11-24T00:00:00.000Z"],
      ["24-11-26", "dmy", "2026-11-24T00:00:00.000Z"],
    ] as const)
      assert.equal(new Date(readReportDate(text, order)!).toISOString(), iso, text);
    for (const [text, order] of [
      ["31.02.2026", "dmy"],
      ["24.11.2026", "mdy"],
      ["yesterday", "ymd"],
      ["2026-11-24 25:00", "ymd"],
      ["", "ymd"],
    ] as const)
      assert.equal(readReportDate(text, order), undefined, text);
  });

  test("that can be read either way are said to be", () => {
    assert.deepEqual(possibleOrders(["05/06/2026", "07/08/2026"]), ["dmy", "mdy"]);
    assert.deepEqual(possibleOrders(["05/06/2026", "17/08/2026"]), ["dmy"]);
    assert.deepEqual(possibleOrders(["never"]), []);
  });
});

describe("a report's rows", () => {
  const HEADER = [
    "Order ID",
    "Date",
    "Commission",
    "Sale amount",
    "Currency",
    "Status",
    "Sub ID",
    "Merchant",
  ];
  const columns: ReportColumns = reportColumnsSchema.parse({
    reference: "order id",
    at: "Date",
    commission: "Commission",
    amount: "Sale amount",
    currency: "Currency",
    state: "Status",
    subId: "Sub ID",
    program: "Merchant",
    dates: "dmy",
    decimal: ",",
  });
  const reader = (more: Partial<ReportColumns> = {}): RowReader => {
    const made = rowReader(HEADER, { ...columns, ...more });
    assert.ok(typeof made !== "string", String(made));
    return made;
  };

  test("say what was earned", () => {
    assert.deepEqual(
      reader()(["A-1", "24.11.2026", "1,50", "15,00", "eur", "Confirmed", "reviews-1", "Harbour"]),
      {
        ok: true,
        conversion: {
          reference: "A-1",
          at: Date.UTC(2026, 10, 24),
          kind: "sale",
          state: "approved",
          currency: "EUR",
          commission: 150,
          amount: 1500,
          subId: "reviews-1",
          program: "Harbour",
        },
      },
    );
  });

  test("below zero are reversals, whatever they call themselves", () => {
    const read = reader()(["A-1", "24.11.2026", "-1,50", "-15,00", "EUR", "approved", "", ""]);
    assert.ok(read.ok && read.conversion);
    assert.deepEqual(
      [read.conversion.state, read.conversion.commission, read.conversion.amount],
      ["reversed", 150, 1500],
    );
  });

  test("that cannot be read are refused with the reason", () => {
    for (const [row, reason] of [
      [["A", "11/24/2026", "1,50", "", "EUR", "", "", ""], /no date written day, month, year/],
      [["A", "24.11.2026", "1.50", "", "EUR", "", "", ""], /no amount/],
      [["A", "24.11.2026", "1,50", "x", "EUR", "", "", ""], /no amount/],
      [["A", "24.11.2026", "1,50", "", "ABC", "", "", ""], /no currency/],
      [["A", "24.11.2026", "1,50", "", "", "", "", ""], /No currency/],
      [["A", "24.11.2026", "1,50", "", "EUR", "maybe", "", ""], /no state/],
      [["", "24.11.2026", "1,50", "", "EUR", "", "", ""], /reference is missing/],
      [["A"], /no date/],
    ] as const) {
      const read = reader()(row);
      assert.ok(!read.ok, row.join());
      assert.match(read.reason, reason);
    }
    assert.match(String(rowReader(["Date"], columns)), /no column “order id”/);
  });

  test("without a reference are told apart by what they say and how often they say it", () => {
    const row = ["", "24.11.2026", "1,50", "", "EUR", "", "", ""];
    const references = (read: RowReader): string[] =>
      [row, row, [...row.slice(0, 6), "x", ""]].map((one) => {
        const found = read(one);
        return found.ok ? found.conversion!.reference : found.reason;
      });
    const first = references(reader({ reference: undefined }));
    assert.equal(new Set(first).size, 3);
    assert.deepEqual(
      references(reader({ reference: undefined })),
      first,
      "the same when the report is read again",
    );
  });

  test("columns are guessed from their names and the first rows", () => {
    const { columns: guessed, dateOrders } = guessColumns(HEADER, [
      ["A", "05.06.2026", "1,50", "15,00", "EUR", "open", "x", "H"],
    ]);
    assert.deepEqual(guessed, { ...columns, reference: "Order ID", dates: "dmy" });
    assert.deepEqual(dateOrders, ["dmy", "mdy"]);
  });

  test("columns without a currency are not taken", () => {
    const { currency: _, ...without } = columns;
    assert.equal(reportColumnsSchema.safeParse(without).success, false);
    assert.equal(reportColumnsSchema.safeParse({ ...without, fixedCurrency: "eur" }).success, true);
  });
});

describe("a snippet", () => {
  test("is read whole: link, picture, size and counting pixel", () => {
    const read = readSnippet(
      `<a href="https://go.example/c/{id}?s={sub}&amp;b=7" target="_blank"><img src="https://cdn.example/b.png" width="300" height=250 alt="Spring"></a><img src="https://go.example/see/{id}" width=1 height=1>`,
    );
    assert.deepEqual(read, {
      ok: true,
      snippet: {
        kind: "banner",
        href: "https://go.example/c/{id}?s={sub}&b=7",
        words: "",
        picture: { src: "https://cdn.example/b.png", alt: "Spring", width: 300, height: 250 },
        pixel: "https://go.example/see/{id}",
        leftOut: [],
        unfilled: [],
      },
    });
  });

  test("names the placeholders that are its program's own", () => {
    const read = readSnippet(
      '<a href="https://go.example/c/[ACCOUNT]/{id}?s=%7Bsub%7D&k=YOUR_ID"><img src="https://go.example/[ACCOUNT].png"></a>',
    );
    assert.ok(read.ok);
    assert.deepEqual(read.snippet.unfilled, ["[ACCOUNT]", "YOUR_ID"]);
  });

  test("loses its scripts and event handlers, and says so", () => {
    const read = readSnippet(
      `<script>steal()</script><a href="https://go.example/{id}" onclick="x()">Binoculars <b>now</b></a>`,
    );
    assert.ok(read.ok);
    assert.deepEqual(
      [read.snippet.kind, read.snippet.words, read.snippet.leftOut],
      ["text", "Binoculars now", ["a script", "event handlers"]],
    );
  });

  test("that is no link is refused with the reason", () => {
    for (const [html, reason] of [
      ["<script src=//ads.example/x.js></script>", /no link beside a script/],
      ["<p>words</p>", /no link in it/],
      ["<a href='javascript:alert(1)'>x</a>", /leads nowhere/],
      ["<a href='/inside'>x</a>", /no web address/],
      ["<a href='https://a.example'></a>", /neither words nor a picture/],
      ["<a href='https://a.example'>a</a><a href='https://b.example'>b</a>", /several links/],
      ["<a href='https://a.example'><img src='data:image/png;base64,x' width=30 height=30></a>", /picture/],
    ] as const) {
      const read = readSnippet(html);
      assert.ok(!read.ok, html);
      assert.match(read.reason, reason, html);
    }
  });

  test("is filled from the account, and refused while something is left to fill in", () => {
    assert.deepEqual(fillCreative("https://go.example/c/{ID}?s={sub}", { id: "LL 1", sub: "a" }), {
      ok: true,
      address: "https://go.example/c/LL%201?s=a",
    });
    assert.equal(fillCreative("https://go.example/c/{id}", { id: "", sub: "" }).ok, false);
    assert.equal(fillCreative("https://go.example/c/YOUR_ID", { id: "LL", sub: "" }).ok, false);
  });
});
