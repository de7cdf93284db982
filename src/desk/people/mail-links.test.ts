import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { SMTPServer } from "smtp-server";
import { until } from "../../../tests/support/ask.ts";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";
import { freePort } from "../../../scripts/postgres.mjs";
import { createMailer } from "../../outgoing/mail.ts";
import { lookAtLink } from "./links.ts";
import { mailReset } from "./mail-links.ts";
import { addPerson } from "./people.ts";

let garden: TestDesk;
let server: SMTPServer;
let port: number;
const mails: { to: string[]; text: string }[] = [];

before(async () => {
  garden = await testDesk();
  port = await freePort();
  server = new SMTPServer({
    authOptional: true,
    disabledCommands: ["STARTTLS"],
    onRcptTo: ({ address }, _session, done) =>
      done(address.startsWith("full@") ? new Error("the mailbox is full") : undefined),
    onData(stream, session, done) {
      let text = "";
      stream.on("data", (part) => (text += String(part)));
      stream.on("end", () => {
        mails.push({ to: session.envelope.rcptTo.map(({ address }) => address), text });
        done();
      });
    },
  });
  await new Promise<void>((resolve) => server.listen(port, "127.0.0.1", resolve));
  await addPerson(garden.desk, {
    email: "ida@garden.example",
    password: "three old spades",
    name: "Ida Fern",
    role: "owner",
  });
});
after(async () => {
  await garden.close();
  await new Promise<void>((resolve) => server.close(() => resolve()));
});

// Behind the #, whatever the encoding of the mail broke across lines.
const tokenIn = (text: string): string =>
  /https:\/\/desk\.garden\.example\/welcome#([\w-]{43})/.exec(
    text.replaceAll(/=\r?\n/g, "").replaceAll("=3D", "="),
  )![1]!;

test("without a mail server, whoever asks for mail is told at the field, and nobody is let in", async () => {
  const input = { mail: "bee@garden.example", name: "Bee", role: "editor", byMail: true };
  for (const path of ["/people", "/sites/garden/people"]) {
    const { status, body } = await garden.call("POST", path, input);
    assert.deepEqual([status, body.errors[0].path], [422, "byMail"], path);
  }
  assert.equal((await garden.call("GET", "/people")).body.items.length, 1);
  assert.equal((await garden.call("GET", "/installation")).body.hasMail, false);
  await assert.rejects(
    mailReset(garden.desk, { mail: "ida@garden.example" }, "127.0.0.1"),
    /an owner makes you a link/,
  );
});

describe("with a mail server", () => {
  before(() => {
    garden.desk.mailer = createMailer(`smtp://127.0.0.1:${port}`, "Garden <desk@garden.example>");
  });

  test("somebody new gets the link with which they come in", async () => {
    const input = { mail: "bee@garden.example", name: "Bee", role: "editor", byMail: true };
    const { status, body } = await garden.call("POST", "/sites/garden/people", input);
    assert.deepEqual([status, body.link.mailed], [201, true]);
    const [mail] = mails;
    assert.deepEqual(mail!.to, ["bee@garden.example"]);
    assert.match(mail!.text, /^From: Garden <desk@garden\.example>/m);
    assert.equal((await lookAtLink(garden.desk, tokenIn(mail!.text))).name, "Bee");
    assert.equal((await garden.call("GET", "/installation")).body.hasMail, true);
  });

  test("a mail that the server does not take leaves the link to be handed over", async () => {
    const input = { mail: "full@garden.example", name: "Full", role: "reader", byMail: true };
    const { status, body } = await garden.call("POST", "/people", input);
    assert.deepEqual([status, body.link.mailed], [201, false]);
    assert.match(body.link.path, /^\/welcome#/);
    assert.match(String(garden.failures.pop()), /the mailbox is full/);
  });

  test("who lost their password gets a link; of others nobody learns whether they are here", async () => {
    const before_ = mails.length;
    await mailReset(garden.desk, { mail: "nobody@garden.example" }, "198.51.100.7");
    await mailReset(garden.desk, { mail: "ida@garden.example" }, "198.51.100.7");
    await until("it is mailed", () => mails.length > before_);
    assert.equal(mails.length, before_ + 1);
    const { mail, isNew } = await lookAtLink(garden.desk, tokenIn(mails.at(-1)!.text));
    assert.deepEqual([mail, isNew], ["ida@garden.example", false]);
  });

  test("not again and again", async () => {
    const ask = () => mailReset(garden.desk, { mail: "otto@garden.example" }, "198.51.100.8");
    for (let time = 0; time < 3; time += 1) await ask();
    await assert.rejects(ask(), { status: 429 });
  });
});
