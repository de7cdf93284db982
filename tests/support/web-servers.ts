import { spawn, type ChildProcess } from "node:child_process";
import { existsSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { installDebian } from "../../scripts/install.mjs";
import { freePort } from "../../scripts/postgres.mjs";
import { ask, until } from "./ask.ts";

/** A web server of Debian's packages on loopback, with a configuration of ours. */
export interface WebServer {
  port: number;
  stop(): Promise<void>;
}

/** Starts nginx with an exported configuration in its http block; `exported` is asked for the port to listen on. */
export async function startNginx(exported: (port: number) => Promise<string>): Promise<WebServer> {
  installDebian(
    ["nginx-light"],
    () => existsSync("/usr/sbin/nginx"),
    "nginx, which answers an exported configuration,",
  );
  const folder = mkdtempSync(join(tmpdir(), "maprope-nginx-"));
  const port = await freePort();
  writeFileSync(join(folder, "routes.conf"), await exported(port));
  writeFileSync(
    join(folder, "nginx.conf"),
    `daemon off; master_process off; pid ${folder}/pid; error_log ${folder}/error.log;
events {}
http {
  access_log off;
  client_body_temp_path ${folder}/body; proxy_temp_path ${folder}/proxy; fastcgi_temp_path ${folder}/fastcgi;
  uwsgi_temp_path ${folder}/uwsgi; scgi_temp_path ${folder}/scgi;
  include ${folder}/routes.conf;
}
`,
  );
  return running(
    spawn("/usr/sbin/nginx", ["-p", folder, "-c", join(folder, "nginx.conf")], {
      stdio: ["ignore", "ignore", "pipe"],
    }),
    port,
    folder,
  );
}

const MODULES = "/usr/lib/apache2/modules";

/** Starts Apache with an exported configuration beside the little that it needs to run. */
export async function startApache(exported: (port: number) => Promise<string>): Promise<WebServer> {
  installDebian(
    ["apache2-bin"],
    () => existsSync("/usr/sbin/apache2"),
    "Apache, which answers an exported configuration,",
  );
  const folder = mkdtempSync(join(tmpdir(), "maprope-apache-"));
  const port = await freePort();
  mkdirSync(join(folder, "root"));
  writeFileSync(join(folder, "routes.conf"), await exported(port));
  writeFileSync(
    join(folder, "apache.conf"),
    `ServerRoot ${folder}
Listen 127.0.0.1:${port}
PidFile ${folder}/pid
Mutex file:${folder}
ErrorLog ${folder}/error.log
ServerName 127.0.0.1
DocumentRoot ${folder}/root
LoadModule mpm_event_module ${MODULES}/mod_mpm_event.so
LoadModule authz_core_module ${MODULES}/mod_authz_core.so
LoadModule rewrite_module ${MODULES}/mod_rewrite.so
LoadModule headers_module ${MODULES}/mod_headers.so
User nobody
Group nogroup
Include ${folder}/routes.conf
`,
  );
  return running(
    spawn("/usr/sbin/apache2", ["-X", "-f", join(folder, "apache.conf")], {
      stdio: ["ignore", "ignore", "pipe"],
    }),
    port,
    folder,
  );
}

async function running(child: ChildProcess, port: number, folder: string): Promise<WebServer> {
  let said = "";
  let ended = false;
  child.stderr!.on("data", (chunk) => (said += String(chunk)));
  const exit = new Promise<void>((resolve) => child.once("exit", () => resolve(void (ended = true))));
  const stop = async (): Promise<void> => {
    child.kill("SIGTERM");
    await exit;
    rmSync(folder, { recursive: true, force: true });
  };
  try {
    await until("the server answers", () => {
      if (ended) throw new Error(`the server ended: ${said}`);
      return ask(port, "/").then(
        () => true,
        () => false,
      );
    });
  } catch (error) {
    await stop();
    throw error;
  }
  return { port, stop };
}
