// Holds rooms to a house without circles, and proves that the rules on imports can fail: each is given what it must refuse.
import { spawnSync } from 'node:child_process';
import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { roomCircles, sourcesOf } from './rooms.mjs';
import { ROOT } from './system.mjs';

const FORBIDDEN = [
  ['src/core/kits/example.ts', '@/store/store'],
  ['src/core/kits/example.ts', '../../store/store'],
  ['src/core/kits/example.ts', 'react'],
  ['src/core/kits/example.ts', 'node:fs'],
  ['src/contracts/example.ts', '@/services/runtime'],
  ['src/store/example.ts', '@/services/runtime'],
  ['src/formats/example.ts', '@/store/store'],
  ['src/workers/example.ts', '@/services/runtime'],
  ['src/devices/example.ts', '@/services/runtime'],
  ['src/jobs/example.ts', '@/app/access'],
  ['src/jobs/example.ts', 'sequelize'],
  ['src/services/kits/example.ts', 'next/headers'],
  ['src/services/kits/example.ts', '@/store/sql'],
  ['src/devices/example.ts', '@/store/sql'],
  ['src/services/kits/example.ts', '@/ui/page'],
  ['src/ui/example.tsx', '@/services/runtime'],
  ['src/app/example.tsx', '@/store/store'],
  ['src/core/kits/example.ts', '@/watch/log'],
  ['src/store/example.ts', '@/watch/log'],
  ['src/watch/example.ts', '@/services/runtime'],
];

const FORMS = [
  (target) => `import { x } from '${target}';\nexport const y = x;\n`,
  (target) => `export { x } from '${target}';\n`,
  (target) => `import type { X } from '${target}';\nexport type Y = X;\n`,
];

/** Two files that import each other: by value, by type, and one by each. */
const CIRCLES = [
  [
    "import { b } from './import-proof-circle-b';\nexport const a = () => b;\n",
    "import { a } from './import-proof-circle-a';\nexport const b = () => a;\n",
  ],
  [
    "import type { B } from './import-proof-circle-b';\nexport interface A { b: B }\n",
    "import type { A } from './import-proof-circle-a';\nexport interface B { a: A }\n",
  ],
];

// Real files, since the linter matches the rule to the folder a file lies in; removed whatever happens.
const planted = FORBIDDEN.flatMap(([file, target], n) =>
  FORMS.map((form, k) => {
    const { dir, ext } = path.parse(file);
    return { file: path.join(dir, `import-proof-${n}-${k}${ext}`), target, text: form(target) };
  }),
);
const lint = (files) =>
  spawnSync(
    path.join(ROOT, 'node_modules', '.bin', 'biome'),
    ['lint', '--reporter=github', '--max-diagnostics=none', ...files],
    { cwd: ROOT, encoding: 'utf8' },
  ).stdout;

/** What the linter says of files that are there only for this. */
function reportOn(files) {
  try {
    for (const { file, text } of files) writeFileSync(path.join(ROOT, file), text);
    return lint(files.map(({ file }) => file));
  } finally {
    for (const { file } of files) rmSync(path.join(ROOT, file), { force: true });
  }
}

const wrong = [];
const refused = reportOn(planted)
  .split('\n')
  .filter((line) => line.includes('noRestrictedImports'));
for (const { file, target, text } of planted)
  if (!refused.some((line) => line.includes(file)))
    wrong.push(`The import rule lets ${path.dirname(file)} import ${target}:\n${text}`);

for (const texts of CIRCLES) {
  const files = texts.map((text, at) => ({ file: `src/core/kits/import-proof-circle-${'ab'[at]}.ts`, text }));
  if (!reportOn(files).includes('noImportCycles'))
    wrong.push(`The rule on circles lets these pass:\n${texts.join('\n')}`);
}

const read = (file) => readFileSync(path.join(ROOT, file), 'utf8');
for (const [floor, depth] of [
  ['src/core', 1],
  ['src/core', 2],
  ['src/store', 1],
  ['src/formats', 1],
  ['src/services', 1],
  ['src/ui', 1],
  ['src/app/(desk)', 1],
])
  for (const circle of roomCircles(floor, sourcesOf(ROOT, floor), depth, read))
    wrong.push(`Rooms of ${floor} import each other in a circle: ${circle}`);
const proof = {
  'src/core/a/x.ts': "import type { Y } from '../b/y';",
  'src/core/b/y.ts': "import { z } from '@/core/a/z';",
};
if (roomCircles('src/core', Object.keys(proof), 1, (file) => proof[file]).length === 0)
  wrong.push('The rule on rooms does not see a circle of two.');

for (const each of wrong) console.error(each);
if (wrong.length > 0) process.exit(1);
console.log(
  `Imports: no rooms in circles; the rules refused all ${planted.length} forbidden imports and ${CIRCLES.length + 1} circles they were given.`,
);
