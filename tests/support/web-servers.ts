import { spawn, type ChildProcess } from "node:child_process";
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
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

/** An nginx as it runs on a machine of its own: a process that keeps others, which are told by signals. */
export interface EdgeServer extends WebServer {
  pidFile: string;
  /** Kills the processes that answer, as nobody should; nginx begins others. */
  killWorkers(): void;
}

/** Starts nginx with what `include` names in its http block. */
export async function startEdgeServer(include: string, port: number): Promise<EdgeServer> {
  installDebian(["nginx-light"], () => existsSync("/usr/sbin/nginx"), "nginx, which answers for us,");
  const folder = mkdtempSync(join(tmpdir(), "maprope-edge-"));
  const pidFile = join(folder, "pid");
  writeFileSync(
    join(folder, "nginx.conf"),
    `user root; daemon off; worker_processes 2; pid ${pidFile}; error_log ${folder}/error.log; worker_shutdown_timeout 2s;
events {}
http {
  access_log off;
  client_body_temp_path ${folder}/body; proxy_temp_path ${folder}/proxy; fastcgi_temp_path ${folder}/fastcgi;
  uwsgi_temp_path ${folder}/uwsgi; scgi_temp_path ${folder}/scgi;
  include ${include};
}
`,
  );
  const child = spawn("/usr/sbin/nginx", ["-p", folder, "-c", join(folder, "nginx.conf")], {
    stdio: ["ignore", "ignore", "pipe"],
  });
  const server = await running(child, port, folder);
  return {
    ...server,
    pidFile,
    killWorkers() {
      const workers = readFileSync(`/proc/${child.pid}/task/${child.pid}/children`, "utf8").trim();
      for (const worker of workers.split(" ").filter(Boolean)) process.kill(Number(worker), "SIGKILL");
    },
  };
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
