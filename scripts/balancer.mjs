// HAProxy before the web servers, with TLS, and (on the machine of each web server) before the nodes of the database: whom it sends
// where, and how it knows who is well.
import { spawn } from 'node:child_process';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { ensureDebianPackage, run, stopChild } from './system.mjs';

/**
 * The settings before the web servers.
 *
 * @param host with `port`: what browsers reach, over TLS
 * @param pem certificate and key in one file
 * @param webs name and port of each web server
 */
export const frontSettings = ({ host, port, pem, webs }) => `
global
  maxconn 4000
  ssl-default-bind-options ssl-min-ver TLSv1.2
defaults
  timeout connect 3s
  timeout client 75s
  timeout server 75s
  timeout queue 10s
  timeout http-request 15s
  timeout http-keep-alive 60s
  # A busy server is slow to say that it is well: taking it away would make the others busier.
  timeout check 3s
  option redispatch 1
  retries 3

# Browsers. Who they are is said to the web servers, whatever they say of themselves.
frontend browsers
  mode http
  bind ${host}:${port} ssl crt ${pem} alpn h2,http/1.1
  unique-id-format %[uuid()]
  http-request set-header X-Request-Id %[unique-id]
  http-request set-header X-Forwarded-For %[src]
  http-request set-header X-Forwarded-Proto https
  # What is only for whoever runs this stays inside.
  http-request deny deny_status 404 if { path /readyz /healthz /metrics }
  use_backend benches if { path_beg /api/bench/ }
  default_backend pages

# Somebody stays with one server while it is well: what is asked together is answered together.
backend pages
  mode http
  balance leastconn
  cookie SERVER insert indirect nocache httponly secure attr "SameSite=Lax"
  option httpchk GET /readyz?for=traffic
  http-request disable-l7-retry unless { method GET HEAD }
  retry-on conn-failure empty-response
  default-server check inter 1s fastinter 500ms fall 2 rise 1 on-marked-down shutdown-sessions
${webs.map(({ name, port: own }) => `  server ${name} 127.0.0.1:${own} cookie ${name}`).join('\n')}

# All screens of one bench at one server: it looks for all of them at once. Streams stay open, with a beat every five seconds.
# Whether a server is well is asked once, above.
backend benches
  mode http
  balance uri depth 3
  hash-type consistent
  http-request disable-l7-retry unless { method GET HEAD }
  retry-on conn-failure empty-response
  default-server on-marked-down shutdown-sessions
${webs.map(({ name, port: own }) => `  server ${name} 127.0.0.1:${own} track pages/${name}`).join('\n')}
`;

/**
 * The settings before the nodes of the database.
 *
 * @param port under which the programs of one machine reach the database
 * @param peers name and port of each machine's HAProxy, this one among them: which node is written to, they tell one another
 * @param nodes name, port and health port of each node
 */
export const databaseSettings = ({ port, peers, nodes }) => `
global
  maxconn 2000
defaults
  timeout connect 3s
  timeout queue 10s
  option redispatch 1
  retries 3
peers programs
${peers.map((peer) => `  peer ${peer.name} 127.0.0.1:${peer.port}`).join('\n')}

# All write to one node, and go over to another together when it is not well; they do not come back when it is.
listen database
  mode tcp
  bind 127.0.0.1:${port}
  timeout client 8h
  timeout server 8h
  option tcpka
  option httpchk GET /
  stick-table type integer size 1 peers programs
  stick on int(1)
  default-server inter 1s fastinter 500ms fall 2 rise 2 on-marked-down shutdown-sessions
${nodes.map(({ name, port: own, health }) => `  server ${name} 127.0.0.1:${own} check port ${health}`).join('\n')}
`;

/** Starts HAProxy before the web servers. @returns its present process, and `stop()` */
export function startFront({ folder, tls, ...settings }) {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const pem = path.join(folder, 'browsers.pem');
  writeFileSync(pem, `${readFileSync(tls.cert, 'utf8')}${readFileSync(tls.key, 'utf8')}`, { mode: 0o600 });
  return startHaproxy('The balancer', path.join(folder, 'front.cfg'), frontSettings({ pem, ...settings }), []);
}

/** Starts HAProxy before the nodes of the database, for the programs of one machine. @param name its own among the peers */
export function startWay({ folder, name, ...settings }) {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const file = path.join(folder, `database-${name}.cfg`);
  return startHaproxy(`The way of ${name} to the database`, file, databaseSettings(settings), ['-L', name]);
}

/** Starts HAProxy, and again when it dies. */
function startHaproxy(title, file, settings, args) {
  const haproxy = ensureDebianPackage('haproxy', 'haproxy');
  writeFileSync(file, settings, { mode: 0o600 });
  run(haproxy, ['-c', '-q', '-f', file, ...args]);
  let child;
  let stopping = false;
  const launch = () => {
    child = spawn(haproxy, ['-db', '-q', '-f', file, ...args], { stdio: 'ignore', detached: true });
    child.once('exit', (code, signal) => {
      if (stopping) return;
      console.error(`· ${title} ended unexpectedly (${signal ?? code}); starting it again …`);
      setTimeout(() => !stopping && launch(), 200);
    });
  };
  launch();
  return {
    get pid() {
      return child.pid;
    },
    async stop() {
      stopping = true;
      await stopChild(child);
    },
  };
}
