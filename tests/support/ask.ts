import { Agent, request, type IncomingHttpHeaders } from "node:http";

/** What a listener answered. */
export interface Reply {
  status: number;
  headers: IncomingHttpHeaders;
  body: string;
  bytes: Buffer;
}

/** Asks a listener on loopback, as a host of the tester's choice; redirects are not followed. */
export function ask(
  port: number,
  path: string,
  options: { host?: string; method?: string; headers?: Record<string, string>; agent?: Agent } = {},
): Promise<Reply> {
  const headers = { Host: options.host ?? "garden.example", "User-Agent": PERSON, ...options.headers };
  return new Promise((resolve, reject) => {
    const asked = request(
      {
        host: "127.0.0.1",
        port,
        path,
        method: options.method ?? "GET",
        headers,
        agent: options.agent,
        timeout: 20_000,
      },
      (response) => {
        const chunks: Buffer[] = [];
        response.on("data", (chunk: Buffer) => chunks.push(chunk));
        response.on("error", reject);
        response.on("end", () => {
          const bytes = Buffer.concat(chunks);
          resolve({ status: response.statusCode!, headers: response.headers, body: bytes.toString(), bytes });
        });
      },
    );
    asked.on("timeout", () => asked.destroy(new Error("no answer within twenty seconds")));
    asked.on("error", reject);
    asked.end();
  });
}

export const PERSON = "Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0";
export const ROBOT = "examplebot/2.1 (+https://bot.example/about)";

/** Waits until `question` answers something true; fails with the sentence after a minute. */
export async function until<T>(sentence: string, question: () => T | Promise<T>): Promise<T> {
  const end = Date.now() + 60_000;
  for (;;) {
    const answer = await question();
    if (answer) return answer;
    if (Date.now() > end) throw new Error(`still not so after a minute: ${sentence}`);
    await new Promise((resolve) => setTimeout(resolve, 25));
  }
}
