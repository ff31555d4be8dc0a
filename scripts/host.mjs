// What the machine under us does besides, without which figures mean little.
import { readFileSync } from 'node:fs';

/** Processor time since the machine started, in ticks: all of it, and what a virtual machine's host gave to others; zeros where unknown. */
export function stolen() {
  try {
    const times = readFileSync('/proc/stat', 'utf8').split('\n')[0].split(/\s+/).slice(1, 9).map(Number);
    return { stolen: times[7], all: times.reduce((sum, time) => sum + time, 0) };
  } catch {
    return { stolen: 0, all: 0 };
  }
}

/** What part of the processor time the host gave to others since `before`, in per cent. */
export function stolenSince(before) {
  const now = stolen();
  return Math.round((100 * (now.stolen - before.stolen)) / Math.max(1, now.all - before.all));
}

/** Processor time that some processes have used, in milliseconds: a hundredth of a second at the finest; 0 where unknown. */
export function spentBy(pids) {
  const TICK_MS = 10;
  return pids.reduce((sum, pid) => {
    try {
      const [user, system] = readFileSync(`/proc/${pid}/stat`, 'utf8')
        .replace(/^.*\) /s, '')
        .split(' ')
        .slice(11, 13);
      return sum + (Number(user) + Number(system)) * TICK_MS;
    } catch {
      return sum;
    }
  }, 0);
}
