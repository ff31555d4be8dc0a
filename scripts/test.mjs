// npm test: unit tests, then browser tests in Debian's Chromium against a built app, on a throw-away database.
import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, openSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { chromiumOptions } from './chromium.mjs';
import { startDatabase } from './database.mjs';
import { startWeb, startWorker } from './supervise.mjs';
import { ensureBuild, ensureDebianPackage, ensurePackages, freePort, ROOT, run, StepFailed, say } from './system.mjs';

const folder = mkdtempSync(path.join(tmpdir(), 'logistra-test-'));
/** What is to be stopped at the end, last first. */
const running = [];

/**
 * Runs a test runner and reads its own count from the JSON report it writes.
 *
 * @param isShown its output is shown as it comes; else at its end, so that two at once can be read
 */
async function runner(title, args, env, report, isShown = true) {
  if (isShown) say(title);
  const output = path.join(folder, `${title}.log`);
  const out = isShown ? 'inherit' : openSync(output, 'w');
  const code = await new Promise((resolve) => {
    const child = spawn(process.execPath, args, {
      cwd: ROOT,
      stdio: ['ignore', out, out],
      env: { ...process.env, ...env },
    });
    child.once('exit', (status) => resolve(status ?? 1));
  });
  if (!isShown) console.log(`${title}\n${readFileSync(output, 'utf8')}`);
  return { code, ...report() };
}

/** A Logistra of its own: database, web server and background process, with the demo in it. */
async function startDemo(name) {
  const own = path.join(folder, name);
  const database = await startDatabase({
    folder: own,
    keys: path.join(own, 'keys'),
    databases: ['browser'],
    durable: true,
    quiet: true,
  });
  running.push(database);
  const env = { DATABASE_URL: database.urls.browser, SESSION_SECRET: database.sessionSecret };
  run(process.execPath, ['--import', 'tsx', 'scripts/prepare.ts', '--demo'], { env: { ...process.env, ...env } });
  const web = await startWeb({ port: await freePort(), env });
  running.push(web, await startWorker({ env }));
  return { ...env, BASE_URL: web.address, DATABASE_PID_FILE: database.pidFile };
}

const readReport = (file) => (existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : undefined);

let failed = true;
try {
  ensurePackages();
  chromiumOptions();
  ensureDebianPackage('pdftotext', 'poppler-utils');
  say('Starting a throw-away database …');
  const database = await startDatabase({
    folder,
    keys: path.join(folder, 'keys'),
    databases: ['unit', 'unit_migrations', 'unit_jobs', 'unit_backup', 'unit_restored', 'unit_handlers'],
    durable: true,
    quiet: true,
  });
  running.push(database);

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
  /** The tests of one project of Playwright, on a Logistra of their own. */
  const browserTests = async (title, project, isShown) => {
    const report = path.join(folder, `${project}.json`);
    const env = { ...(await startDemo(project)), PLAYWRIGHT_JSON_OUTPUT_NAME: report };
    const args = ['test', `--project=${project}`, `--output=${path.join(folder, `${project}-results`)}`];
    return () =>
      runner(
        title,
        ['node_modules/@playwright/test/cli.js', ...args],
        env,
        () => {
          const stats = readReport(report)?.stats;
          return { passed: stats?.expected ?? 0, failed: (stats?.unexpected ?? 0) + (stats?.flaky ?? 0) };
        },
        isShown,
      );
  };
  const stories = await browserTests('Browser tests', 'stories', true);
  const screens = await browserTests('Browser tests of every screen', 'screens', false);
  // Screens are only looked at: that goes beside the stories, and keeps the second core busy.
  const browser = await Promise.all([stories(), screens()]);

  const all = [unit, ...browser];
  const sum = (runs, what) => runs.reduce((total, each) => total + each[what], 0);
  const passed = sum(all, 'passed');
  const notPassed = sum(all, 'failed');
  failed = notPassed > 0 || all.some((each) => each.code !== 0 || each.passed === 0);
  // Said again at the end: of a long output often only the end is kept.
  for (const { test, why } of unit.failures) console.log(`\nFailed: ${test}\n${String(why).slice(0, 2_000)}`);
  console.log(`\nUnit tests: ${unit.passed} passed, ${unit.failed} failed`);
  console.log(`Browser tests: ${sum(browser, 'passed')} passed, ${sum(browser, 'failed')} failed`);
  if (failed && notPassed === 0) console.log('A test runner ended before its tests did: see its output above.');
  console.log(`\n${passed} passed, ${notPassed} failed`);
} catch (error) {
  console.error(`\n${error instanceof StepFailed ? error.message : error.stack}\n`);
} finally {
  for (const each of running.reverse()) await each.stop();
  rmSync(folder, { recursive: true, force: true });
}
process.exit(failed ? 1 : 0);
