import type { Server } from "node:http";

// Longer than proxies and clients keep an idle connection (most: a minute): whoever has the shorter time closes it, and a
// request must not be under way just then.
const KEEP_ALIVE_MS = 65_000;

/** Waits until a server listens; a port that is taken becomes one plain sentence. */
export function listening(server: Server, host: string, port: number, variable: string): Promise<void> {
  return new Promise((resolve, reject) => {
    server.once("error", (error: NodeJS.ErrnoException) => {
      const taken = error.code === "EADDRINUSE";
      reject(
        taken
          ? new Error(`Port ${port} is taken by another program: stop it, or set ${variable} to a free port.`)
          : error,
      );
    });
    server.keepAliveTimeout = KEEP_ALIVE_MS;
    server.listen(port, host, resolve);
  });
}

const IDLE_MS = 50;
// A download, or a table that is read: longer than any of ours takes, and shorter than whoever stops us waits.
const LAST_ANSWERS_MS = 25_000;

/** Stops taking connections and ends the idle ones; requests that are under way are answered first, for up to 25 s. */
export function closed(server: Server): Promise<void> {
  return new Promise((resolve) => {
    // A connection that has had its answer is idle then, and would be kept for the next request.
    const idle = setInterval(() => server.closeIdleConnections(), IDLE_MS);
    const last = setTimeout(() => server.closeAllConnections(), LAST_ANSWERS_MS);
    server.close(() => {
      clearInterval(idle);
      clearTimeout(last);
      resolve();
    });
    server.closeIdleConnections();
  });
}
