// npm test: unit tests, then browser tests in Debian's Chromium against a built app, on a throw-away database.
import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { chromiumOptions } from './chromium.mjs';
import { startDatabase } from './database.mjs';
import { startWeb, startWorker } from './supervise.mjs';
import { ensureBuild, ensureDebianPackage, ensurePackages, freePort, ROOT, run, StepFailed, say } from './system.mjs';

const folder = mkdtempSync(path.join(tmpdir(), 'logistra-test-'));
let database;
let web;
let worker;

/** Runs a test runner, showing its output, and reads its own count from the JSON report it writes. */
async function runner(title, args, env, report) {
  say(title);
  const code = await new Promise((resolve) => {
    const child = spawn(process.execPath, args, { cwd: ROOT, stdio: 'inherit', env: { ...process.env, ...env } });
    child.once('exit', (status) => resolve(status ?? 1));
  });
  return { code, ...report() };
}

const readReport = (file) => (existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : undefined);

let failed = true;
try {
  ensurePackages();
  chromiumOptions();
  ensureDebianPackage('pdftotext', 'poppler-utils');
  say('Starting a throw-away database …');
  database = await startDatabase({
    folder,
    keys: path.join(folder, 'keys'),
    databases: [
      'unit',
      'unit_migrations',
      'unit_jobs',
      'unit_backup',
      'unit_restored',
      'unit_handlers',
      'unit_moved',
      'browser',
    ],
    durable: true,
    quiet: true,
  });

  const vitestReport = path.join(folder, 'vitest.json');
  const unit = await runner(
    'Unit tests',
    [
      'node_modules/vitest/vitest.mjs',
      'run',
      '--reporter=default',
      '--reporter=json',
      `--outputFile.json=${vitestReport}`,
    ],
    { TEST_DATABASE_URL: database.urls.unit },
    () => {
      const report = readReport(vitestReport);
      const failures = (report?.testResults ?? []).flatMap((file) => [
        ...file.assertionResults
          .filter((test) => test.status === 'failed')
          .map((test) => ({
            test: `${path.relative(ROOT, file.name)}: ${test.fullName}`,
            why: test.failureMessages[0],
          })),
        ...(file.status === 'failed' && file.message
          ? [{ test: path.relative(ROOT, file.name), why: file.message }]
          : []),
      ]);
      return { passed: report?.numPassedTests ?? 0, failed: report?.numFailedTests ?? 0, failures };
    },
  );

  ensureBuild();
  const env = { DATABASE_URL: database.urls.browser, SESSION_SECRET: database.sessionSecret };
  run(process.execPath, ['--import', 'tsx', 'scripts/prepare.ts', '--demo'], { env: { ...process.env, ...env } });
  web = await startWeb({ port: await freePort(), env });
  worker = await startWorker({ env });
  const browserReport = path.join(folder, 'browser.json');
  const browser = await runner(
    'Browser tests',
    ['node_modules/@playwright/test/cli.js', 'test'],
    {
      BASE_URL: web.address,
      DATABASE_PID_FILE: database.pidFile,
      ...env,
      PLAYWRIGHT_JSON_OUTPUT_NAME: browserReport,
    },
    () => {
      const stats = readReport(browserReport)?.stats;
      return { passed: stats?.expected ?? 0, failed: (stats?.unexpected ?? 0) + (stats?.flaky ?? 0) };
    },
  );

  const passed = unit.passed + browser.passed;
  const notPassed = unit.failed + browser.failed;
  failed = unit.code !== 0 || browser.code !== 0 || notPassed > 0 || unit.passed === 0 || browser.passed === 0;
  // Said again at the end: of a long output often only the end is kept.
  for (const { test, why } of unit.failures) console.log(`\nFailed: ${test}\n${String(why).slice(0, 2_000)}`);
  console.log(`\nUnit tests: ${unit.passed} passed, ${unit.failed} failed`);
  console.log(`Browser tests: ${browser.passed} passed, ${browser.failed} failed`);
  if (failed && notPassed === 0) console.log('A test runner ended before its tests did: see its output above.');
  console.log(`\n${passed} passed, ${notPassed} failed`);
} catch (error) {
  console.error(`\n${error instanceof StepFailed ? error.message : error.stack}\n`);
} finally {
  await web?.stop();
  await worker?.stop();
  await database?.stop();
  rmSync(folder, { recursive: true, force: true });
}
process.exit(failed ? 1 : 0);
