// What a reader of the pool runs. The tasks are TypeScript: loaded the same way by the server, the background process and the
// tests, once for each reader.
import { spawnSync } from 'node:child_process';
import os from 'node:os';
import { tsImport } from 'tsx/esm/api';

// Whoever waits for a page comes before whoever waits for a file, and both before whoever waits for a plan.
os.setPriority(10);
// A low priority alone is not enough for what takes many seconds: a page that wakes up waits until such a process has had its slice,
// at each of its statements. Where the system knows no such class the priority stays.
if (process.env.PLANS === 'yes') spawnSync('chrt', ['--all-tasks', '--idle', '--pid', '0', String(process.pid)]);

const { TASKS } = await tsImport('./tasks.ts', import.meta.url);

export default async function work({ task, input }) {
  try {
    return { answer: await TASKS[task](input) };
  } catch (error) {
    // What is wrong with a file crosses as words; what is wrong with us as an error.
    if (error?.name === 'FileRefused') return { refused: error.message, headings: error.headings };
    if (error?.name === 'GlyphMissing') return { missing: error.message };
    throw error;
  }
}
