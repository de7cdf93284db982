import type { Server } from "node:http";

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
    server.listen(port, host, resolve);
  });
}

/** Stops taking connections and ends the idle ones. */
export function closed(server: Server): Promise<void> {
  return new Promise((resolve) => {
    server.close(() => resolve());
    server.closeIdleConnections();
    setTimeout(() => server.closeAllConnections(), 1_000).unref();
  });
}
