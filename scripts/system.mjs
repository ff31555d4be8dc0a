// What a fresh machine lacks, installed from its own package registries. Plain Node: runs before npm packages exist.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

/** The project's folder. */
export const ROOT = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
/** Everything made at run time (database, secrets) lives here; ignored by git. */
export const DATA = path.join(ROOT, '.data');

/** Prints one step, so that a person sees what is happening. */
export function say(text) {
  console.log(`· ${text}`);
}

/** Ends the command with what went wrong and what to do about it. */
export class StepFailed extends Error {
  constructor(what, remedy) {
    super(`${what}\n  What to do: ${remedy}`);
  }
}

/** Runs a command to its end; its output is shown only when it fails. */
export function run(command, args, options = {}) {
  const { remedy, ...rest } = options;
  const result = spawnSync(command, args, { cwd: ROOT, encoding: 'utf8', maxBuffer: 1 << 26, ...rest });
  if (result.status !== 0) {
    const output = `${result.stdout ?? ''}${result.stderr ?? ''}${result.error ? result.error.message : ''}`.trim();
    throw new StepFailed(
      `"${command} ${args.join(' ')}" failed:\n${output.split('\n').slice(-25).join('\n')}`,
      remedy ?? 'read the message above, mend its cause, and run the command again.',
    );
  }
  return result.stdout;
}

/** Full path of a program, looked for where Debian keeps servers too; null when absent. */
export function findProgram(name) {
  for (const dir of [...(process.env.PATH ?? '').split(':'), '/usr/sbin', '/usr/bin', '/sbin', '/bin']) {
    const candidate = path.join(dir || '.', name);
    if (existsSync(candidate)) return candidate;
  }
  return null;
}

/** Installs a Debian package when the program it brings is missing. */
export function ensureDebianPackage(program, packageName) {
  const found = findProgram(program);
  if (found) return found;
  const byHand = `install it by hand ("apt-get install ${packageName}") and run the command again.`;
  if (!findProgram('apt-get')) throw new StepFailed(`${program} is missing and this is not a Debian machine`, byHand);
  say(`Installing ${packageName} (once) …`);
  const root = process.getuid?.() === 0;
  const apt = (args) =>
    run(root ? 'apt-get' : 'sudo', root ? args : ['-n', 'apt-get', ...args], {
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
      remedy: byHand,
    });
  apt(['update', '-qq']);
  apt(['install', '-y', '-qq', packageName]);
  const now = findProgram(program);
  if (!now) throw new StepFailed(`${packageName} was installed but ${program} is still missing`, byHand);
  return now;
}

const OWN_NODE = path.join(ROOT, 'node_modules', '.bin', 'node');

/**
 * Whatever is started from here on runs on the Node.js that comes with the packages: the one that was measured and tested, whatever
 * the machine has. `npm run` finds it by itself once it is there; where none is made for the machine, the machine's own goes on.
 */
function useOwnNode() {
  if (existsSync(OWN_NODE)) process.execPath = OWN_NODE;
}

useOwnNode();

/** Installs the npm packages when they are missing or older than package-lock.json. */
export function ensurePackages() {
  const stamp = path.join(ROOT, 'node_modules', '.logistra-lock');
  const wanted = hashFiles([path.join(ROOT, 'package-lock.json')]);
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  say('Installing npm packages …');
  run('npm', ['ci', '--no-audit', '--no-fund'], {
    remedy: 'check that the npm registry can be reached, then run the command again.',
  });
  writeFileSync(stamp, wanted);
  useOwnNode();
}

/** Builds the app when any source is newer than the last build. */
export function ensureBuild() {
  const sources = ['src', 'public', 'next.config.ts', 'package-lock.json', 'tsconfig.json', 'postcss.config.mjs'];
  const stamp = path.join(ROOT, '.next', 'logistra-build');
  const wanted = hashFiles(sources.map((s) => path.join(ROOT, s)));
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  say('Building the app …');
  run(process.execPath, [path.join(ROOT, 'node_modules/next/dist/bin/next'), 'build'], {
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' },
    remedy: 'the build names the file and line; mend it and run the command again.',
  });
  writeFileSync(stamp, wanted);
}

/** One hash over the contents of files and folders, in a fixed order. */
export function hashFiles(entries) {
  const hash = createHash('sha256');
  const visit = (entry) => {
    if (!existsSync(entry)) return;
    if (statSync(entry).isDirectory()) {
      for (const name of readdirSync(entry).sort()) visit(path.join(entry, name));
    } else if (!/\.test\.tsx?$/.test(entry)) {
      hash.update(path.relative(ROOT, entry)).update(readFileSync(entry));
    }
  };
  for (const entry of entries) visit(entry);
  return hash.digest('hex');
}

/** A TCP port free on an address of this machine: the wanted one if possible, any other else. */
export async function freePort(wanted = 0, host = '127.0.0.1') {
  const tryPort = (port) =>
    new Promise((resolve) => {
      const server = createServer();
      server.once('error', () => resolve(null));
      server.listen(port, host, () => {
        const { port: got } = server.address();
        server.close(() => resolve(got));
      });
    });
  return (await tryPort(wanted)) ?? (await tryPort(0));
}

/** Asks a child process to end, and waits; after ten seconds it is ended. */
export async function stopChild(child) {
  if (child.exitCode !== null || child.signalCode !== null) return;
  const gone = new Promise((resolve) => child.once('exit', resolve));
  child.kill('SIGTERM');
  const hard = setTimeout(() => child.kill('SIGKILL'), 10_000);
  await gone;
  clearTimeout(hard);
}

/** True while a process with this number is alive. */
export function isAlive(pid) {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return error.code === 'EPERM';
  }
}

/** Makes the folder for run-time data, readable by its owner only. */
export function ensureDataFolder() {
  mkdirSync(DATA, { recursive: true, mode: 0o700 });
}
