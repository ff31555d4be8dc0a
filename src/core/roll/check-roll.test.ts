import { describe, expect, it } from 'vitest';
import { checkRoll, type NumberedCells } from './check-roll';
import { NOT_ASKED, type RollCells } from './roll-row';

const cells = (change: Partial<RollCells> = {}): RollCells => ({
  name: 'Ada Finch',
  age: '7',
  servings: '2',
  avoids: '',
  mode: '',
  ...change,
});
const row = (line: number, change: Partial<RollCells> = {}, more: Partial<NumberedCells> = {}): NumberedCells => ({
  line,
  cells: cells(change),
  ...more,
});

describe('a roll checked as a whole', () => {
  it('asks whether two families of one name are one, where they are reached elsewhere: in a file, or in the programme', () => {
    const lind = (line: number, name: string, contact: string, home?: 'same' | 'other') =>
      row(line, { name, household: 'Lind', contact }, home ? { home } : {});
    const rows = [
      lind(2, 'Ada Lind', 'ada@x.example'),
      lind(3, 'Bo Lind', 'ada@x.example'),
      lind(4, 'Cy Lind', 'cy@y.example'),
    ];
    const [first, sibling, other] = checkRoll(rows, []);
    expect([first, sibling].map((each) => each?.entry?.household)).toEqual(['Lind', 'Lind']);
    expect(other).toMatchObject({ isOtherHome: true, problems: [{ column: 'household' }] });
    expect(other?.problems[0]?.message).toContain('reached at ada@x.example, here cy@y.example');
    const decided = (home: 'same' | 'other') =>
      checkRoll([...rows.slice(0, 2), lind(4, 'Cy Lind', 'cy@y.example', home)], [])[2];
    expect(decided('other')?.entry).toMatchObject({ household: 'Lind (Cy Lind)', contact: 'cy@y.example' });
    // Of two homes of one child neither contact takes the other away.
    expect(decided('same')?.entry).toMatchObject({ household: 'Lind', contact: 'ada@x.example; cy@y.example' });
    const known = [{ name: 'lind', contact: 'far@z.example', address: '' }];
    expect(checkRoll(rows.slice(0, 1), [], [], known)[0]?.problems[0]?.message).toContain('known already');
    expect(checkRoll([row(2, { household: 'Lind' })], [], [], known)[0]?.entry?.household).toBe('lind');
  });

  it('refuses a row until what stands beyond its last column is written where it belongs, whatever else is mended', () => {
    const said = (change: Partial<RollCells>) => checkRoll([row(2, change, { beyond: ['milk'] })], [])[0];
    expect(said({ avoids: 'no gluten' })?.problems[0]?.message).toContain('stands “milk”');
    expect(said({ avoids: 'no gluten', age: '8', name: 'Milka Finch' })?.entry).toBeUndefined();
    expect(said({ avoids: 'no gluten; Milk' })?.entry).toBeDefined();
  });

  it('finds the same child twice, in the file and on the roll, however it is spelled', () => {
    const checked = checkRoll(
      [row(2), row(3, { name: 'ada  FINCH' }), row(4, { name: 'Zoë Marlow', age: '' }), row(5, { name: 'Bram Oduya' })],
      [{ name: 'Zoe Marlow', age: 9 }],
    );
    expect(checked.map(({ problems }) => problems[0]?.message)).toEqual([
      undefined,
      'ada FINCH is in line 2 of the file. Leave this row out, or tell the two apart by name or age.',
      'Zoë Marlow is on the roll already. Update them, leave this row out, or tell the two apart by name or age.',
      undefined,
    ]);
  });

  it('takes two people of one name and different ages for two people', () => {
    expect(checkRoll([row(2), row(3, { age: '9' })], []).every(({ entry }) => entry)).toBe(true);
  });

  it('tells one child spelled two ways in one file, with what differs in what they avoid', () => {
    const twice = [row(2, { name: 'Zoë Marlow', avoids: 'egg' }), row(3, { name: 'Zoe Marlowe' })];
    const [, second] = checkRoll(twice, []);
    expect(second?.problems[0]?.message).toBe(
      'Zoe Marlowe may be Zoë Marlow in line 2 of the file. Here Zoe Marlowe avoids nothing; there Zoë Marlow avoids egg. Leave one of them out, or say that it is somebody else.',
    );
    const decided = [twice[0] as NumberedCells, { ...(twice[1] as NumberedCells), as: 'new' as const }];
    expect(checkRoll(decided, []).every(({ entry }) => entry)).toBe(true);
    expect(checkRoll([row(2, { name: 'Ann Lee' }), row(3, { name: 'Ian Low' })], []).every(({ entry }) => entry)).toBe(
      true,
    );
  });

  it('takes nothing from somebody on the roll when the file did not ask; and “not asked” goes once it did', () => {
    const on = { id: 'a', name: 'Ada Finch', age: 7, servings: 2, mode: null, needs: ['egg', NOT_ASKED] };
    const update = (avoids: string) => checkRoll([row(2, { avoids }, { as: 'update' })], [on])[0];
    expect(update(NOT_ASKED)?.entry?.needs).toEqual(['egg', NOT_ASKED]);
    expect(update('')?.entry?.needs).toEqual(['egg']);
    expect(update('milk')?.entry?.needs).toEqual(['egg', 'milk']);
    expect(update('')?.changes).toContain('was asked what they must not eat');
  });

  it('does not hold a row that is left out against another', () => {
    const [first, second] = checkRoll([row(2, {}, { leaveOut: true }), row(3)], []);
    expect(first?.problems).toEqual([]);
    expect(second?.entry?.name).toBe('Ada Finch');
  });
});

describe('the same child spelled two ways', () => {
  const row = (name: string, more: Partial<NumberedCells> = {}, age = '') => ({
    line: 2,
    cells: { name, age, servings: '1', avoids: '', mode: '' },
    ...more,
  });
  const roll = [{ id: 'ada', name: 'Łucja Wren', age: 8 }];

  it.each([
    ['Lucja Wren', true],
    ['Wren, Łucja', true],
    ['Lucia Wren', true],
    ['Lucy Wrenshaw', false],
  ])('is found: %s', (name, isFound) => {
    const [checked] = checkRoll([row(name)], roll);
    expect(checked?.onRoll?.id).toBe(isFound ? 'ada' : undefined);
    expect(checked?.entry === undefined).toBe(isFound);
  });

  it('is updated, or said to be somebody else; another age is another child', () => {
    expect(checkRoll([row('Lucia Wren', { as: 'update' })], roll)[0]).toMatchObject({
      entry: { name: 'Lucia Wren' },
      onRoll: { id: 'ada' },
    });
    expect(checkRoll([row('Lucia Wren', { as: 'new' })], roll)[0]?.entry).toBeDefined();
    expect(checkRoll([row('Lucja Wren', {}, '11')], roll)[0]?.entry).toBeDefined();
    // The very same name is not somebody else by a click.
    expect(checkRoll([row('Lucja Wren', { as: 'new' })], roll)[0]?.entry).toBeUndefined();
  });

  it('cannot be replaced by two rows at once', () => {
    const [, second] = checkRoll(
      [row('Lucia Wren', { as: 'update' }), row('Wren Lucja', { as: 'update', line: 3 })],
      roll,
    );
    expect(second?.problems[0]?.message).toMatch('Two rows would replace');
  });
});

describe('somebody on the roll who is brought in again', () => {
  const ada = {
    id: 'ada',
    name: 'Ada Finch',
    age: 7,
    servings: 4,
    mode: 'take-home',
    needs: ['Nuts', 'milk'],
  } as const;
  const update = (change: Partial<RollCells>) => checkRoll([row(2, change, { as: 'update' })], [ada])[0];

  it('keeps what the row leaves empty, and every avoidance that the file does not name', () => {
    const checked = update({ age: '', servings: '', mode: '', avoids: 'no nuts; egg' });
    expect(checked?.problems).toEqual([]);
    expect(checked?.entry).toMatchObject({
      age: 7,
      servings: 4,
      mode: 'take-home',
      needs: ['milk', 'no nuts', 'egg'],
    });
    expect(checked?.changes).toEqual([
      'avoids also egg',
      'still avoids milk, which the file does not name: take it away by hand if it is over',
    ]);
  });

  it('is asked about when a year older by now, so that nobody is doubled by a birthday', () => {
    const [checked] = checkRoll([row(2, { age: '8' })], [ada]);
    expect(checked).toMatchObject({ onRoll: { id: 'ada' }, isNamedAlike: false, entry: undefined });
    expect(checked?.problems[0]?.message).toContain('may be Ada Finch, 7 years old, who is on the roll already');
    expect(update({ age: '8', avoids: 'nuts, milk', servings: '' })?.changes).toEqual(['age 8, was 7']);
    expect(checkRoll([row(2, { age: '8' }, { as: 'new' })], [ada])[0]?.entry?.age).toBe(8);
  });

  it('is told in words what changes', () => {
    expect(update({ name: 'Ada FINCH', servings: '2', mode: 'in person', avoids: 'nuts, milk' })?.changes).toEqual([
      'spelled Ada FINCH',
      '2 servings, was 4',
      'in person, was take-home',
    ]);
    expect(update({ servings: '4', avoids: 'milk; nuts' })?.changes).toEqual([]);
  });

  it('is found even where the row says too little for somebody new', () => {
    const [checked] = checkRoll([row(2, { servings: '' })], [ada]);
    expect(checked).toMatchObject({ onRoll: { id: 'ada' }, isNamedAlike: true, entry: undefined });
    expect(checked?.problems.map(({ column }) => column)).toEqual(['name', 'servings']);
  });
});
