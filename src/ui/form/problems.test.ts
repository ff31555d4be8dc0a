import { describe, expect, it } from 'vitest';
import { placeProblems } from './problems';

const placed = (where: string, ...fields: string[]) => {
  const { at, rest } = placeProblems([{ where, message: 'At least 5.' }], new Set(fields));
  return { at: Object.fromEntries(at), rest };
};

describe('what is wrong with a form', () => {
  it('is said at its field', () => {
    expect(placed('seats', 'name', 'seats').at).toEqual({ seats: ['At least 5.'] });
    expect(placed('outdoor.waterLitres', 'outdoor.waterLitres').at).toEqual({ 'outdoor.waterLitres': ['At least 5.'] });
    expect(placed('hours[2].to', 'hours[1].to', 'hours[2].to').at).toEqual({ 'hours[2].to': ['At least 5.'] });
  });

  it('is said with the number of the line in a field of many lines', () => {
    expect(placed('containers[3].ml', 'containers').at).toEqual({ containers: ['Line 4: At least 5.'] });
  });

  it('is said of the whole form where no field is about it, and never by what a machine calls its place', () => {
    expect(placed('home.box[1].grams', 'name').rest).toEqual([{ where: '', message: 'At least 5.' }]);
    expect(placed('line 7, servings', 'name').rest).toEqual([{ where: 'line 7, servings', message: 'At least 5.' }]);
    expect(placed('', 'name').rest).toEqual([{ where: '', message: 'At least 5.' }]);
  });

  it('is said once', () => {
    const twice = [1, 2].map(() => ({ where: 'name', message: 'Taken.' }));
    expect(placeProblems(twice, new Set(['name'])).at.get('name')).toEqual(['Taken.']);
  });
});
