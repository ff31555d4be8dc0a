// npm run restore FILE [-- --empty]: puts a backup back. It is first loaded beside and compared to the last byte; only
// then does it take the place of what is there, which is itself backed up before.
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { dump, dumpTo, fingerprintOf, load } from './dump.mjs';
import { openForMaintenance } from './maintenance.mjs';
import { DATA, ensurePackages, StepFailed, say } from './system.mjs';

let database;
try {
  ensurePackages();
  const file = process.argv.slice(2).find((argument) => !argument.startsWith('--'));
  if (!file || !existsSync(file)) throw new StepFailed(`there is no file ${file ?? ''}`, 'npm run restore FILE');
  const kept = existsSync(`${file}.fingerprint`) ? readFileSync(`${file}.fingerprint`, 'utf8').trim() : null;
  if (!kept) throw new StepFailed(`${file}.fingerprint is missing`, 'keep both files of a backup together.');
  if ((await fingerprintOf(file)) !== kept)
    throw new StepFailed(
      `${file} is not what was backed up: its fingerprint differs`,
      'use another copy of the backup.',
    );
  database = await openForMaintenance({ alone: true });

  say('Loading it beside, and comparing …');
  await database.make('logistra_restore');
  await load(database.urlOf('logistra_restore'), { file });
  const came = await dump(database.urlOf('logistra_restore'));
  await database.drop('logistra_restore');
  if (came !== kept)
    throw new StepFailed('what was loaded is not what was backed up', 'nothing was changed; try again.');

  const before = path.join(DATA, 'backups', `${database.name}-before-restore-${Date.now()}.sql.gz.age`);
  mkdirSync(path.dirname(before), { recursive: true, mode: 0o700 });
  const was = await dumpTo(database.url, before);
  writeFileSync(`${before}.fingerprint`, `${was}\n`, { mode: 0o600 });
  say('Putting it in place …');
  await database.drop(database.name);
  await database.make(database.name);
  await load(database.url, { file });
  if ((await dump(database.url)) !== kept) throw new StepFailed('the restored database differs', `restore ${before}`);
  console.log(`\n  Restored ${database.name}, fingerprint ${kept}.\n  What was there before: ${before}\n`);
} catch (error) {
  console.error(`\n${error instanceof StepFailed ? error.message : error.stack}\n`);
  process.exitCode = 1;
} finally {
  await database?.close();
}
