import { expect, it } from 'vitest';
import { testStore } from '../../../tests/programme';
import { searchServices } from '../../../tests/search/search';

// A short run of what `npm run search-unsafe` does at length, with another seed each time.
it('no random steps through the services leave an unsafe kit going on, or a text that says less than the truth', async () => {
  const store = await testStore();
  const seed = Number(process.env.SEARCH_SEED ?? 7);
  const { found, kits, held, texts, neverDone } = await searchServices(store, { seed, steps: 200 });
  await store.close();
  expect(found, `seed ${seed}:\n${found.join('\n')}`).toEqual([]);
  expect(neverDone, `seed ${seed}`).toEqual([]);
  // A search that meets nothing proves nothing.
  expect(Math.min(kits, texts)).toBeGreaterThan(100);
  expect(held).toBeGreaterThan(5);
}, 120_000);
