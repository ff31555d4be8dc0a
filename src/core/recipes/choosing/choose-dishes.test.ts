import { describe, expect, it } from 'vitest';
import { type Candidate, chooseDishes, coverageOf, type DishSession } from './choose-dishes';
import type { FitVerdict } from './fit';

const dish = (id: string, more: Partial<Candidate> = {}): Candidate => ({
  id,
  title: id,
  ingredients: [id],
  plateGroups: new Set(),
  vegetableFamilies: new Set(),
  skills: new Set(),
  leftOver: new Map(),
  oneForAll: false,
  refused: false,
  ...more,
});
const session = (id: string, chosen: string[] = []): DishSession => ({ id, date: '2027-01-12', chosen });
const NOTHING = { stock: new Set<string>(), offers: new Set<string>() };
const plan = (
  sessions: DishSession[],
  dishes: Candidate[],
  fits: (dish: Candidate, session: DishSession) => FitVerdict = () => 'fits',
) => chooseDishes(sessions, dishes, NOTHING, fits);
const titles = (of: ReturnType<typeof plan>, id: string) => of.proposals.get(id)?.map(({ dish: { title } }) => title);

describe('choosing dishes for sessions', () => {
  it('puts what fits before what fits with care, and that before what does not fit', () => {
    const verdicts: Record<string, FitVerdict> = { a: 'does not fit', b: 'with care', c: 'fits' };
    const found = plan(
      [session('one')],
      ['a', 'b', 'c'].map((id) => dish(id)),
      ({ id }) => verdicts[id] ?? 'fits',
    );
    expect(titles(found, 'one')).toEqual(['c', 'b', 'a']);
  });

  it('puts first what most of those who tasted it would have more of, once enough have', () => {
    const votes = { a: { more: 4, of: 4 }, b: { more: 5, of: 12 }, c: { more: 9, of: 12 } };
    const found = plan(
      [session('one')],
      (['a', 'b', 'c'] as const).map((id) => dish(id, { votes: votes[id] })),
    );
    expect(titles(found, 'one')).toEqual(['c', 'a', 'b']);
    expect(found.proposals.get('one')?.[0]?.reasons).toContain('liked: 9 of 12 would have more');
  });

  it('asks how a dish fits once for each session, however often it ranks', () => {
    const asked: string[] = [];
    plan([session('one'), session('two')], [dish('a'), dish('b')], (each, of) => {
      asked.push(`${each.id} ${of.id}`);
      return 'fits';
    });
    expect(asked.sort()).toEqual(['a one', 'a two', 'b one', 'b two']);
  });

  it('gives each session a dish of its own as long as there are enough', () => {
    const found = plan(
      [session('one'), session('two'), session('three')],
      ['a', 'b', 'c'].map((id) => dish(id)),
    );
    expect(new Set(found.order.map(({ dishId }) => dishId)).size).toBe(3);
  });

  it('repeats nothing that is chosen while anything else would do', () => {
    const found = plan([session('one', ['a']), session('two')], [dish('a'), dish('b')]);
    expect(titles(found, 'two')).toEqual(['b', 'a']);
    expect(found.proposals.get('two')?.at(-1)?.reasons).toContain('in the course already');
    expect(found.proposals.has('one')).toBe(false);
  });

  it('prefers what teaches something new, and what everybody can eat as it is', () => {
    const dishes = [
      dish('same skill', { skills: new Set(['knife']) }),
      dish('new skill', { skills: new Set(['whisk']) }),
      dish('for all', { oneForAll: true }),
      dish('refused', { refused: true }),
      dish('taken', { skills: new Set(['knife']) }),
    ];
    const found = plan([session('one', ['taken']), session('two')], dishes);
    expect(titles(found, 'two')).toEqual(['for all', 'new skill', 'same skill', 'taken', 'refused']);
  });

  it('proposes at most five, and none where there is no recipe', () => {
    const many = plan(
      [session('one')],
      Array.from({ length: 9 }, (_, n) => dish(`${n}`)),
    );
    expect(many.proposals.get('one')).toHaveLength(5);
    expect(plan([session('one')], []).proposals.get('one')).toEqual([]);
  });
});

describe('coverage', () => {
  it('counts how many dishes bring each thing', () => {
    const coverage = coverageOf([
      dish('a', { plateGroups: new Set(['vegetable', 'grain']) }),
      dish('b', { plateGroups: new Set(['vegetable']), vegetableFamilies: new Set(['dark green']) }),
    ]);
    expect([...coverage.groups]).toEqual([
      ['vegetable', 2],
      ['grain', 1],
    ]);
    expect([...coverage.families]).toEqual([['dark green', 1]]);
    expect(coverage.foods.get('b')).toBe(1);
  });
});
