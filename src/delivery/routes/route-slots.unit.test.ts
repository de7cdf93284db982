import assert from "node:assert/strict";
import { describe, test } from "node:test";
import fc from "fast-check";
import { ROUTE_STATUSES } from "../../core/routes/choices.ts";
import { RouteSlots } from "./route-slots.ts";
import type { DeliveredMore, DeliveredRoute } from "../../store/routes/delivered-route.ts";

const MORE: DeliveredMore = {
  query: "drop",
  parameters: "",
  notice: null,
  noindex: false,
  nofollow: false,
  replacesPage: false,
  validFrom: null,
  validUntil: null,
  afterEnd: "nothing",
  endDestination: null,
  inContent: "nowhere",
  contentPages: [],
  destinationKey: null,
  address: "/a",
};
const route = (id: number, rest: Partial<DeliveredRoute> = {}): DeliveredRoute => ({
  id: String(id),
  siteId: "1",
  caseInsensitive: false,
  host: null,
  keys: [`/r${id}`],
  destination: `https://shop.example/${id}`,
  status: 302,
  counted: true,
  more: null,
  ...rest,
});

describe("routes in columns", () => {
  test("are read as they were put", () => {
    const slots = new RouteSlots();
    const plain = slots.read(slots.put(route(7)));
    assert.deepEqual(
      [
        plain.id,
        plain.status,
        plain.destination,
        plain.counted,
        plain.query,
        plain.from,
        plain.until,
        plain.robots,
      ],
      ["7", 302, "https://shop.example/7", true, "drop", 0, Infinity, undefined],
    );
    const rich = slots.read(
      slots.put(
        route(8, {
          status: 200,
          counted: false,
          more: {
            ...MORE,
            query: "merge",
            parameters: "from=x y".replace(" ", "_"),
            notice: { seconds: 3, text: "Wait" },
            noindex: true,
            nofollow: true,
            validFrom: "2026-01-01T00:00:00Z",
            afterEnd: "destination",
            endDestination: "/after",
          },
        }),
      ),
    );
    assert.deepEqual(
      [
        rich.status,
        rich.counted,
        rich.query,
        rich.destination,
        rich.robots,
        rich.endDestination,
        rich.notice?.seconds,
      ],
      [200, false, "merge", "https://shop.example/8?from=x_y", "noindex, nofollow", "/after?from=x_y", 3],
    );
    assert.equal(rich.from, Date.parse("2026-01-01T00:00:00Z"));
  });

  test("a destination is fit for a header, whatever was stored", () => {
    const slots = new RouteSlots();
    const { destination } = slots.read(slots.put(route(1, { destination: "/a b\r\nX: ü" })));
    assert.equal(destination, "/a%20b%0D%0AX:%20%C3%BC");
  });

  test("every status has its place", () => {
    const slots = new RouteSlots();
    for (const status of ROUTE_STATUSES)
      assert.equal(slots.read(slots.put(route(status, { status }))).status, status);
  });

  test("after any putting and removing they hold what a plain map holds", () => {
    const step = fc.record({
      id: fc.integer({ min: 1, max: 40 }),
      remove: fc.boolean(),
      alias: fc.boolean(),
      special: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(step, { maxLength: 200 }), (steps) => {
        const slots = new RouteSlots();
        const plain = new Map<number, DeliveredRoute>();
        for (const [n, { id, remove, alias, special }] of steps.entries()) {
          const there = slots.slotOf(String(id));
          assert.equal(there !== undefined, plain.has(id));
          if (remove) {
            if (there !== undefined) slots.remove(there);
            plain.delete(id);
            continue;
          }
          const made = route(id, {
            destination: `/v${n}`,
            keys: alias ? [`/r${id}`, `/alias${n}`] : [`/r${id}`],
            host: special ? "a.example" : null,
            more: special ? { ...MORE, query: "forward" } : null,
          });
          slots.put(made);
          plain.set(id, made);
        }
        assert.equal(slots.size, plain.size);
        for (const [id, made] of plain) {
          const slot = slots.slotOf(String(id))!;
          const read = slots.read(slot);
          assert.deepEqual(
            [read.id, read.destination, read.query, slots.placesOf(slot)],
            [
              made.id,
              made.destination,
              made.more ? "forward" : "drop",
              { host: made.host, keys: made.keys, caseInsensitive: false },
            ],
          );
        }
      }),
    );
  });

  test("grow past their first size", () => {
    const slots = new RouteSlots();
    for (let id = 1; id <= 3_000; id += 1) slots.put(route(id));
    assert.equal(slots.read(slots.slotOf("2999")!).destination, "https://shop.example/2999");
    assert.equal(slots.size, 3_000);
  });
});
