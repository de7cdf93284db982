import assert from "node:assert/strict";
import { test } from "node:test";
import { toldTimeZone } from "./time-zone.ts";

test("the zone that a browser told is read out of its cookies", () => {
  assert.equal(toldTimeZone("a=1; maprope_zone=Europe%2FVienna; b=2"), "Europe/Vienna");
  assert.equal(toldTimeZone("maprope_zone=Pacific%2FPago_Pago"), "Pacific/Pago_Pago");
});

test("what is no zone, or not written as one, is none", () => {
  for (const cookies of ["", "zone=UTC", "maprope_zone=Nowhere", "maprope_zone=%E0%A4", "maprope_zone="])
    assert.equal(toldTimeZone(cookies), undefined, cookies);
});
