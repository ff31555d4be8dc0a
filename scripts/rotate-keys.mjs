// npm run rotate-keys: new keys for the database on disk and for backups. Everything is taken out of the present database and
// put into a new one that is encrypted with the new key, compared to the last byte; only then is the old one removed.
import { existsSync, renameSync, rmSync } from 'node:fs';
import path from 'node:path';
import { startDatabase } from './database.mjs';
import { dump, dumpTo, load } from './dump.mjs';
import { databaseKeyFile, KEYS, renewBackupKey, renewDatabaseKey } from './keys.mjs';
import { runningState } from './maintenance.mjs';
import { DATA, ensurePackages, StepFailed, say } from './system.mjs';

const DATABASES = ['logistra', 'logistra_demo'];

/**
 * Encrypts a private database anew.
 *
 * @returns how many databases were taken over
 */
export async function rotateKeys({ folder, keys, databases = DATABASES }) {
  const data = path.join(folder, 'mariadb');
  if (!existsSync(data)) throw new StepFailed('there is no database yet', 'start Logistra once: npm start');
  const start = () => startDatabase({ folder, keys, databases, quiet: true });
  renewBackupKey(keys);
  const fileOf = (name) => path.join(folder, `${name}.rotating.sql.gz.age`);
  let database = await start();
  const was = new Map();
  for (const name of databases) was.set(name, await dumpTo(database.urls[name], fileOf(name), keys));
  await database.stop();

  const former = `${data}-before-${Date.now()}`;
  renameSync(data, former);
  const formerKey = renewDatabaseKey(keys);
  try {
    database = await start();
    for (const name of databases) {
      await load(database.urls[name], { file: fileOf(name), keys });
      if ((await dump(database.urls[name])) !== was.get(name)) throw new Error(`${name} came out different`);
    }
    await database.stop();
  } catch (error) {
    await database.stop();
    rmSync(data, { recursive: true, force: true });
    renameSync(former, data);
    renameSync(formerKey, databaseKeyFile(keys));
    throw new StepFailed(`the new database could not be made (${error.message})`, 'nothing was changed; try again.');
  }
  for (const name of databases) rmSync(fileOf(name));
  rmSync(former, { recursive: true });
  rmSync(formerKey);
  return databases.length;
}

if (process.argv[1]?.endsWith('rotate-keys.mjs')) {
  try {
    ensurePackages();
    const running = runningState();
    if (running) throw new StepFailed(`Logistra is running (process ${running.pid})`, 'stop it with Ctrl-C first.');
    say('Encrypting the database with a new key …');
    await rotateKeys({ folder: DATA, keys: KEYS });
    console.log(
      `\n  The database on disk and later backups have new keys, in ${KEYS}.\n  Earlier backups still open with the earlier keys, which are kept there too.\n`,
    );
  } catch (error) {
    console.error(`\n${error instanceof StepFailed ? error.message : error.stack}\n`);
    process.exitCode = 1;
  }
}
