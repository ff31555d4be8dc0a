// Proves once that the rule on import directions can fail: each floor is given a line it must refuse.
import { spawnSync } from 'node:child_process';
import { rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
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
  ['src/services/kits/example.ts', '@/ui/page'],
  ['src/ui/example.tsx', '@/services/runtime'],
  ['src/app/example.tsx', '@/store/store'],
];

const FORMS = [
  (target) => `import { x } from '${target}';\nexport const y = x;\n`,
  (target) => `export { x } from '${target}';\n`,
  (target) => `import type { X } from '${target}';\nexport type Y = X;\n`,
];

// Real files, since the linter matches the rule to the folder a file lies in; removed whatever happens.
const planted = FORBIDDEN.flatMap(([file, target], n) =>
  FORMS.map((form, k) => {
    const { dir, ext } = path.parse(file);
    return { file: path.join(dir, `import-proof-${n}-${k}${ext}`), target, text: form(target) };
  }),
);
let report = '';
try {
  for (const { file, text } of planted) writeFileSync(path.join(ROOT, file), text);
  const biome = path.join(ROOT, 'node_modules', '.bin', 'biome');
  const files = planted.map(({ file }) => file);
  report = spawnSync(biome, ['lint', '--reporter=github', '--max-diagnostics=none', ...files], {
    cwd: ROOT,
    encoding: 'utf8',
  }).stdout;
} finally {
  for (const { file } of planted) rmSync(path.join(ROOT, file), { force: true });
}
const refused = report.split('\n').filter((line) => line.includes('noRestrictedImports'));
const missed = planted.filter(({ file }) => !refused.some((line) => line.includes(file)));
for (const { file, target, text } of missed) {
  console.error(`The import rule lets ${path.dirname(file)} import ${target}:\n${text}`);
}
if (missed.length > 0) process.exit(1);
console.log(`Import directions: the rule refused all ${planted.length} forbidden imports it was given.`);
