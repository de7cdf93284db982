import assert from "node:assert/strict";
import { testDesk, type TestDesk } from "./desk.ts";

/** A joined program whose links go through its network's host. */
export const HARBOUR = {
  name: "Harbour Optics",
  network: "Saltmarsh",
  state: "approved",
  trackingId: "GD-7",
  template: "https://go.saltmarsh.example/c/{id}/harbour?to={destination}&sub={sub}",
  domains: ["harbour.example"],
};

/** A desk whose site has joined that program on its network. */
export async function deskWithProgram(): Promise<{
  garden: TestDesk;
  harbour: { id: string; version: number };
}> {
  const garden = await testDesk();
  await garden.call("PUT", "/sites/garden/networks", { name: "Saltmarsh", hosts: ["go.saltmarsh.example"] });
  const made = await garden.call("POST", "/sites/garden/programs", HARBOUR);
  assert.equal(made.status, 201, JSON.stringify(made.body));
  return { garden, harbour: made.body };
}
