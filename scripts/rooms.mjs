// Finds rooms of a floor that import each other in circles, by value or by type. Single files in circles are found by Biome.
import { readdirSync } from 'node:fs';
import path from 'node:path';

const IMPORT = /\b(?:from|import)\s*\(?\s*'([^']+)'/g;

/** All source files below a folder that are not tests, by path from the root. */
export const sourcesOf = (root, floor) =>
  readdirSync(path.join(root, floor), { recursive: true })
    .map((file) => path.posix.join(floor, file))
    .filter((file) => /\.tsx?$/.test(file) && !/\.test\.tsx?$/.test(file));

/** The files that a file imports, by path from the root. @param read the text of a file */
function importsOf(file, read) {
  return [...read(file).matchAll(IMPORT)].flatMap(([, target]) => {
    if (target.startsWith('@/')) return [path.posix.join('src', target.slice(2))];
    return target.startsWith('.') ? [path.posix.join(path.posix.dirname(file), target)] : [];
  });
}

/**
 * Circles among the rooms of a floor.
 *
 * @param floor "src/core"
 * @param depth how deep a folder still counts as a room: 1 takes kits/record for kits, 2 tells it apart from kits/sheet
 * @returns for each room in a circle: the way that leads back to it, with a file that goes the first step
 * @example roomCircles('src/core', ['src/core/a/x.ts', 'src/core/b/y.ts'], 1, read) //=> ['a → b → a (src/core/a/x.ts)']
 */
export function roomCircles(floor, files, depth, read) {
  // What lies in no room, on the floor itself, stands for itself.
  const roomOf = (file) => {
    const within = path.posix.relative(floor, file).replace(/\.tsx?$/, '');
    return within.includes('/') ? path.posix.dirname(within).split('/').slice(0, depth).join('/') : within;
  };
  /** For each room, the rooms that it imports, each with a file that does. */
  const steps = new Map();
  for (const file of files)
    for (const target of importsOf(file, read)) {
      const [from, to] = [roomOf(file), roomOf(target)];
      if (!target.startsWith(`${floor}/`) || from === to) continue;
      if (!steps.has(from)) steps.set(from, new Map());
      steps.get(from).set(to, file);
    }
  const wayBack = (start) => {
    const ways = [...(steps.get(start)?.keys() ?? [])].map((room) => [start, room]);
    const seen = new Set();
    for (const way of ways) {
      const room = way.at(-1);
      if (room === start) return way;
      if (seen.has(room)) continue;
      seen.add(room);
      for (const next of steps.get(room)?.keys() ?? []) ways.push([...way, next]);
    }
    return undefined;
  };
  return [...steps.keys()].flatMap((room) => {
    const way = wayBack(room);
    return way ? [`${way.join(' → ')} (${steps.get(room).get(way[1])})`] : [];
  });
}
