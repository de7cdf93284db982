import assert from "node:assert/strict";
import { execFileSync } from "node:child_process";
import { existsSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { createServer as createPlain } from "node:http";
import { createServer } from "node:https";
import { createServer as createRaw, type AddressInfo, type Server } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { after, before, describe, test } from "node:test";
import { installDebian } from "../../scripts/install.mjs";
import { createOutgoing } from "./outgoing.ts";
import { reasonOf } from "./refusal.ts";

describe("a server whose certificate is wrong", () => {
  let folder: string;
  const servers: Server[] = [];
  const client = createOutgoing({
    resolve: async () => ["127.0.0.1"],
    allows: () => true,
    origins: async () => "127.0.0.1",
    timeoutMs: 5_000,
  });
  const pair = (name: string, ...more: string[]): void => {
    const args = [
      "req",
      "-newkey",
      "ec",
      "-pkeyopt",
      "ec_paramgen_curve:prime256v1",
      "-nodes",
      "-keyout",
      `${name}.key`,
      "-subj",
      `/CN=${name}`,
    ];
    execFileSync("openssl", [...args, ...more], { cwd: folder, stdio: "ignore" });
  };
  async function listening(server: Server): Promise<number> {
    servers.push(server);
    await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
    return (server.address() as AddressInfo).port;
  }
  const secure = (name: string): Promise<number> =>
    listening(
      createServer(
        { key: readFileSync(join(folder, `${name}.key`)), cert: readFileSync(join(folder, `${name}.pem`)) },
        (_request, response) => response.end("x"),
      ),
    );

  before(() => {
    installDebian(["openssl"], () => existsSync("/usr/bin/openssl"), "openssl, which makes certificates,");
    folder = mkdtempSync(join(tmpdir(), "maprope-certificates-"));
    pair(
      "shop.example",
      "-x509",
      "-days",
      "2",
      "-out",
      "shop.example.pem",
      "-addext",
      "subjectAltName=DNS:shop.example",
    );
    pair("issuer", "-x509", "-days", "2", "-out", "issuer.pem");
    pair("leaf", "-out", "leaf.csr");
    execFileSync(
      "openssl",
      [
        "x509",
        "-req",
        "-in",
        "leaf.csr",
        "-CA",
        "issuer.pem",
        "-CAkey",
        "issuer.key",
        "-CAcreateserial",
        "-days",
        "2",
        "-out",
        "leaf.pem",
      ],
      { cwd: folder, stdio: "ignore" },
    );
  });
  after(() => {
    for (const server of servers) server.close();
    rmSync(folder, { recursive: true, force: true });
  });

  const CASES: [what: string, port: () => Promise<number>, says: RegExp][] = [
    ["signed by itself", () => secure("shop.example"), /nobody but itself vouches for/],
    ["of an issuer that nobody knows", () => secure("leaf"), /issuer is not known/],
    ["of none, since it speaks plainly", () => listening(createPlain((_request, response) => response.end("x"))), /does not speak as a secure server does/],
    ["of none, since it hangs up", () => listening(createRaw((socket) => socket.destroy())), /closes the connection|does not speak/],
  ]; // prettier-ignore
  for (const [what, port, says] of CASES)
    test(`${what} is told so`, async () => {
      const address = `https://shop.example:${await port()}/`;
      for (const ask of [
        () => client.fetch(address, { mostBytes: 1_000 }),
        () => client.visit(address, { title: false }),
      ]) {
        const answer = await ask();
        assert.ok(!answer.ok);
        assert.match(answer.reason, says);
      }
    });

  test("so are those that cannot be made here, by what their errors are called", () => {
    const said = (code: string): string => reasonOf(Object.assign(new Error(code), { code }), false, 1_000);
    assert.match(said("CERT_HAS_EXPIRED"), /has expired/);
    assert.match(said("CERT_NOT_YET_VALID"), /not valid yet/);
    assert.match(said("ERR_TLS_CERT_ALTNAME_INVALID"), /for another name/);
    assert.match(said("CERT_REVOKED"), /cannot be trusted/);
    assert.match(said("ERR_SSL_WRONG_VERSION_NUMBER"), /does not speak/);
  });
});
