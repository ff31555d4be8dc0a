import { describe, expect, it } from 'vitest';
import { TYPICAL } from '../../reference/reference';
import { type CourseDishes, type DishRecipe, dishesForCourse } from './course-dishes';

const recipe = (title: string, foods: string[], steps: string[] = ['Mix everything in a bowl.']): DishRecipe => ({
  id: title,
  title,
  servings: 4,
  lines: foods.map((ingredient) => ({ ingredient, amount: '100', unit: 'g', pack_grams: '1000' })),
  steps,
});
const RECIPES = [
  recipe('carrot salad', ['carrot', 'olive oil']),
  recipe('spinach salad', ['spinach', 'olive oil']),
  recipe('oat cups', ['rolled oats', 'plain yogurt']),
  recipe('lentil bowl', ['brown lentils', 'carrot']),
];
const session = (id: string, more: object = {}) => ({
  id,
  date: '2027-01-12',
  mode: 'in person' as const,
  minutes: 90,
  participants: 8,
  equipment: { stations: 4, knives: 8 },
  isFire: false,
  chosen: [],
  ...more,
});
const task = (more: Partial<CourseDishes> = {}): CourseDishes => ({
  reference: TYPICAL,
  recipes: RECIPES,
  sessions: [session('one'), session('two')],
  people: [{ servings: 4, needs: [] }],
  ages: [8],
  stock: [],
  offers: [],
  products: [],
  ...more,
});
const first = (more: Partial<CourseDishes>, id = 'two') =>
  dishesForCourse(task(more)).proposals.find(({ sessionId }) => sessionId === id)?.dishes[0];

describe('dishes for a course', () => {
  it('complete each other: what the course lacks comes first, what it has is not repeated', () => {
    const sessions = [session('one', { chosen: ['carrot salad'] }), session('two')];
    const best = first({ sessions, recipes: RECIPES.slice(0, 2) });
    expect(best).toMatchObject({ title: 'spinach salad', verdict: 'fits' });
    expect(best?.reasons).toContain('a vegetable family that the course lacks: dark green');
    expect(best?.reasons).toContain('uses up packs opened for other sessions: olive oil');
    const answer = dishesForCourse(task());
    const [one, two] = answer.proposals.map(({ dishes }) => dishes[0]?.title);
    expect(one).not.toBe(two);
  });

  it('use what is at hand, on offer, and on the school’s menu that day', () => {
    const only = { recipes: RECIPES.slice(0, 3), sessions: [session('two', { onMenu: ['carrot'] })] };
    expect(first(only)?.reasons.join()).toMatch(/./);
    expect(first({ ...only, stock: ['rolled oats', 'plain yogurt'] })).toMatchObject({ title: 'oat cups' });
    const salad = dishesForCourse(task({ ...only, offers: ['carrot'] })).proposals[0]?.dishes.find(
      ({ title }) => title === 'carrot salad',
    );
    expect(salad?.reasons).toEqual(expect.arrayContaining(['on offer: carrot', 'meets the school’s menu: carrot']));
  });

  it('that somebody on the roll could not eat come last, with what blocks', () => {
    const people = [{ servings: 4, needs: [{ asWritten: 'milk', codes: ['MILK'] }] }];
    const { proposals } = dishesForCourse(task({ people, sessions: [session('two')] }));
    const dishes = proposals[0]?.dishes ?? [];
    expect(dishes.at(-1)).toMatchObject({ title: 'oat cups', verdict: 'does not fit' });
    expect(dishes.at(-1)?.doubts.join()).toContain('nothing safe stands in for plain yogurt');
    expect(dishes[0]?.reasons).toContain('one version for everybody on the roll');
  });

  it('count what the course covers, with what is chosen and with what is proposed', () => {
    const sessions = [session('one', { chosen: ['carrot salad'] }), session('two')];
    const { coverage } = dishesForCourse(task({ sessions }));
    const of = (name: string) => coverage.find((each) => each.name === name);
    expect(of('red and orange')).toMatchObject({ kind: 'vegetable family', chosen: 1 });
    expect(coverage.reduce((sum, { proposed }) => sum + proposed, 0)).toBeGreaterThan(0);
    expect(of('other')).toBeUndefined();
  });

  it('pass over a recipe that cannot be computed with, and sessions that have their dishes', () => {
    const broken = { ...recipe('broken', ['carrot']), lines: [{ ingredient: 'moonfruit', amount: '1', unit: 'cup' }] };
    const sessions = [session('one', { chosen: ['carrot salad'] }), session('two')];
    const { proposals } = dishesForCourse(task({ recipes: [...RECIPES, broken], sessions }));
    expect(proposals.map(({ sessionId }) => sessionId)).toEqual(['two']);
    expect(proposals[0]?.dishes.map(({ title }) => title)).not.toContain('broken');
  });
});
