// npm run backup [FILE]: everything in the database, compressed, with a fingerprint beside it. Works while it runs.
import { createWriteStream, mkdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { createGzip } from 'node:zlib';
import { dump, fingerprintOf } from './dump.mjs';
import { openForMaintenance } from './maintenance.mjs';
import { DATA, ensurePackages, StepFailed, say } from './system.mjs';

let database;
try {
  ensurePackages();
  database = await openForMaintenance();
  const stamp = new Date().toISOString().slice(0, 19).replace(/[:T]/g, '-');
  const file = path.resolve(process.argv[2] ?? path.join(DATA, 'backups', `${database.name}-${stamp}.sql.gz`));
  mkdirSync(path.dirname(file), { recursive: true, mode: 0o700 });
  say(`Backing up ${database.name} …`);
  // Under another name until it is whole: a backup that was cut short is never taken for one.
  const part = `${file}.part`;
  try {
    const fingerprint = await dump(database.url, createGzip(), createWriteStream(part, { mode: 0o600 }));
    if ((await fingerprintOf(part)) !== fingerprint)
      throw new StepFailed('the file differs from what was read', 'check the disk.');
    renameSync(part, file);
    writeFileSync(`${file}.fingerprint`, `${fingerprint}\n`, { mode: 0o600 });
    console.log(
      `\n  ${file}\n  Fingerprint: ${fingerprint}\n\n  It holds families' data: keep it as safe as the database.\n`,
    );
  } finally {
    rmSync(part, { force: true });
  }
} catch (error) {
  console.error(`\n${error instanceof StepFailed ? error.message : error.stack}\n`);
  process.exitCode = 1;
} finally {
  await database?.close();
}
