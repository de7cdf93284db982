import assert from "node:assert/strict";
import { Agent, createServer, get } from "node:http";
import type { AddressInfo } from "node:net";
import { test } from "node:test";
import { closed, listening } from "./listening.ts";

function asked(port: number, path: string, agent: Agent): Promise<string> {
  return new Promise((resolve, reject) => {
    get({ host: "127.0.0.1", port, path, agent }, (response) => {
      let body = "";
      response.on("data", (part) => (body += String(part)));
      response.on("end", () => resolve(body));
      response.on("error", reject);
    }).on("error", reject);
  });
}

test("a listener that closes answers what is under way, keeps no idle connection, and takes nothing more", async () => {
  let finish = (): void => undefined;
  const began = new Promise<void>((resolve) => {
    finish = resolve;
  });
  let answer = (): void => undefined;
  const server = createServer((request, response) => {
    if (request.url !== "/slow") return void response.end("quick");
    answer = () => response.end("slow, and whole");
    finish();
  });
  await listening(server, "127.0.0.1", 0, "A_PORT");
  const { port } = server.address() as AddressInfo;
  const agent = new Agent({ keepAlive: true });
  assert.equal(await asked(port, "/", agent), "quick");
  const slow = asked(port, "/slow", agent);
  await began;
  const ended = closed(server);
  await assert.rejects(asked(port, "/", new Agent()), { code: "ECONNREFUSED" });
  // Longer than a second, after which everything was cut off once.
  setTimeout(() => answer(), 1_300);
  assert.equal(await slow, "slow, and whole");
  await ended;
  agent.destroy();
});
