// npm run backup [FILE]: everything in the database, compressed and encrypted, with a fingerprint beside it. Works while it runs.
import { mkdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { dumpTo, fingerprintOf } from './dump.mjs';
import { KEYS } from './keys.mjs';
import { openForMaintenance } from './maintenance.mjs';
import { DATA, ensurePackages, StepFailed, say } from './system.mjs';

let database;
try {
  ensurePackages();
  database = await openForMaintenance();
  const stamp = new Date().toISOString().slice(0, 19).replace(/[:T]/g, '-');
  const file = path.resolve(process.argv[2] ?? path.join(DATA, 'backups', `${database.name}-${stamp}.sql.gz.age`));
  mkdirSync(path.dirname(file), { recursive: true, mode: 0o700 });
  say(`Backing up ${database.name} …`);
  // Under another name until it is whole: a backup that was cut short is never taken for one.
  const part = `${file}.part`;
  try {
    const fingerprint = await dumpTo(database.url, part);
    if ((await fingerprintOf(part)) !== fingerprint)
      throw new StepFailed('the file differs from what was read', 'check the disk.');
    renameSync(part, file);
    writeFileSync(`${file}.fingerprint`, `${fingerprint}\n`, { mode: 0o600 });
    console.log(
      `\n  ${file}\n  Fingerprint: ${fingerprint}\n\n  Only the keys in ${KEYS} open it: keep a copy of these elsewhere, apart from it.\n`,
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
