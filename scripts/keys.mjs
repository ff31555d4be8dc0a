// Secrets and keys, apart from the data they guard: made once, readable by their owner only.
import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { Duplex } from 'node:stream';
import { ensureDebianPackage, ROOT, run, StepFailed } from './system.mjs';

/** Where keys are kept: another disk, or a mounted secret, where LOGISTRA_KEYS names it. Ignored by git. */
export const KEYS = process.env.LOGISTRA_KEYS ?? path.join(ROOT, '.keys');

const secret = () => randomBytes(32).toString('hex');

function ensureFolder(folder) {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  return folder;
}

/**
 * Passwords of the database and the deployment's key.
 *
 * @param former a folder that held them before they were kept apart: they are moved
 */
export function readSecrets(keys = KEYS, former = undefined) {
  const file = path.join(ensureFolder(keys), 'secrets.json');
  const before = former && path.join(former, 'secrets.json');
  if (!existsSync(file) && before && existsSync(before)) renameSync(before, file);
  if (existsSync(file)) return JSON.parse(readFileSync(file, 'utf8'));
  const secrets = { database: secret(), databaseRoot: secret(), session: secret() };
  writeFileSync(file, JSON.stringify(secrets), { mode: 0o600 });
  return secrets;
}

/** The token with which the figures of a server are read (/metrics): made once, kept in a file of its own for whoever watches. */
export function metricsToken(keys = KEYS) {
  const file = path.join(ensureFolder(keys), 'metrics.token');
  if (!existsSync(file)) writeFileSync(file, `${secret()}\n`, { mode: 0o600 });
  return readFileSync(file, 'utf8').trim();
}

/** The file of the key that encrypts the database on disk, as MariaDB's key management reads it. */
export function databaseKeyFile(keys = KEYS) {
  const file = path.join(ensureFolder(keys), 'database.key');
  if (!existsSync(file)) writeFileSync(file, `1;${secret()}\n`, { mode: 0o600 });
  return file;
}

/** Puts a new database key in the place of the present one. @returns the file that keeps the one before */
export function renewDatabaseKey(keys = KEYS) {
  const before = path.join(keys, `database.key.${Date.now()}`);
  renameSync(databaseKeyFile(keys), before);
  databaseKeyFile(keys);
  return before;
}

/** The file of the keys that open backups (age, age-encryption.org/v1): the newest first, earlier ones after it. */
function backupKeyFile(keys) {
  const file = path.join(ensureFolder(keys), 'backup.key');
  if (!existsSync(file)) writeFileSync(file, newBackupKey(), { mode: 0o600 });
  return file;
}

function newBackupKey() {
  ensureDebianPackage('age', 'age');
  return run(ensureDebianPackage('age-keygen', 'age'), []);
}

/** Backups are encrypted with a new key from now on; the earlier keys still open earlier ones. */
export function renewBackupKey(keys = KEYS) {
  const file = backupKeyFile(keys);
  writeFileSync(file, `${newBackupKey()}${readFileSync(file, 'utf8')}`, { mode: 0o600 });
}

/** A stream through `age`; its error says what went wrong. */
function throughAge(args) {
  const child = spawn(ensureDebianPackage('age', 'age'), args, { stdio: ['pipe', 'pipe', 'pipe'] });
  const stream = Duplex.from({ writable: child.stdin, readable: child.stdout });
  let said = '';
  child.stderr.on('data', (chunk) => {
    said = (said + chunk).slice(-400);
  });
  child.once('exit', (code) => {
    if (code !== 0) stream.destroy(new Error(said.trim() || `age ended with ${code}`));
  });
  return stream;
}

/** Encrypts what flows through it, for the newest backup key. */
export function encrypting(keys = KEYS) {
  const [recipient] = run(ensureDebianPackage('age-keygen', 'age'), ['-y', backupKeyFile(keys)]).split('\n');
  return throughAge(['-r', recipient]);
}

/** Decrypts what flows through it, with any of the backup keys. */
export function decrypting(keys = KEYS) {
  const file = path.join(keys, 'backup.key');
  if (!existsSync(file))
    throw new StepFailed(
      `the keys of backups (${file}) are missing`,
      'put the folder of keys back from where you keep it.',
    );
  return throughAge(['-d', '-i', file]);
}
