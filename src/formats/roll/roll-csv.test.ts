import { describe, expect, it } from 'vitest';
import { readRollCsv } from './roll-csv';
import { ColumnsUnclear, headingKey } from './roll-headings';

const bytes = (text: string) => new TextEncoder().encode(text);
const HEAD = 'name,age,servings,avoids,mode\n';
const names = (file: Uint8Array) => readRollCsv(file).rows.map(({ cells }) => cells.name);

/** Windows-1252 for the letters used here. */
const windows1252 = (text: string) =>
  Uint8Array.from([...text].map((letter) => ({ Š: 0x8a, '€': 0x80 })[letter] ?? letter.charCodeAt(0)));
const utf16 = (text: string) =>
  Uint8Array.from([
    0xff,
    0xfe,
    ...[...text].flatMap((letter) => [letter.charCodeAt(0) & 255, letter.charCodeAt(0) >> 8]),
  ]);

describe('a roll file', () => {
  it('is read in the encodings that spreadsheets write', () => {
    const text = `${HEAD}Zoë Ångström,7,1,,\n`;
    const files = {
      'UTF-8': bytes(text),
      'UTF-8 with mark': bytes(`\uFEFF${text}`),
      'Windows-1252': windows1252(text),
      'UTF-16': utf16(text),
    };
    for (const [encoding, file] of Object.entries(files)) {
      expect(names(file)).toEqual(['Zoë Ångström']);
      expect(readRollCsv(file).encoding).toBe(encoding.replace(' with mark', ''));
    }
    expect(names(windows1252(`${HEAD}Šárka,7,1,,\n`))).toEqual(['Šárka']);
  });

  it('keeps its letters where one of them is broken, and takes off what kept a phone number from being run', () => {
    const [head, tail] = [bytes(`${HEAD}Zoë Ångström,7,1,,\nŁucja Wren,8,1,,\n`), windows1252('Renée Dorn,9,1,,\n')];
    expect(names(new Uint8Array([...head, ...tail]))).toEqual(['Zoë Ångström', 'Łucja Wren', 'Renée Dorn']);
    const [row] = readRollCsv(bytes("name,servings,contact\nAda,1,'+44 20 7946 0123\n")).rows;
    expect(row?.cells.contact).toBe('+44 20 7946 0123');
  });

  it('takes nobody for a heading where there are none: which column is which is asked, and all are read', () => {
    const rows = 'Ada Lind,7,1\nBo Marsh,8,1\nCy Ferro,9,2\n';
    expect(() => readRollCsv(bytes(rows))).toThrow(ColumnsUnclear);
    const unclear = (() => {
      try {
        readRollCsv(bytes(rows));
      } catch (error) {
        return (error as ColumnsUnclear).headings;
      }
    })();
    const [name = '', age = '', servings = ''] = unclear?.map(({ heading }) => headingKey(heading)) ?? [];
    const read = readRollCsv(bytes(rows), {}, { now: { [name]: 'name', [age]: 'age', [servings]: 'servings' } });
    expect(read.rows.map(({ cells }) => [cells.name, cells.age, cells.servings])).toEqual([
      ['Ada Lind', '7', '1'],
      ['Bo Marsh', '8', '1'],
      ['Cy Ferro', '9', '2'],
    ]);
  });

  it('is read with commas, semicolons or tabs, in any order of columns and any case', () => {
    expect(readRollCsv(bytes('Servings;NAME;Avoids;Shirt\n2;Ada;;red\n'))).toMatchObject({
      delimiter: 'semicolon',
      ignored: ['Shirt'],
      rows: [{ line: 2, cells: { name: 'Ada', servings: '2', age: '', avoids: '', mode: '' } }],
    });
    expect(readRollCsv(bytes('name\tservings\nAda\t2\n')).delimiter).toBe('tab');
  });

  it('counts lines as a person sees them, through quoted breaks and blank lines', () => {
    const { rows } = readRollCsv(
      bytes(`${HEAD}Ada,7,1,"egg\r\nmilk",\r\n\r\n"Bram ""B"" Oduya",8,1,"nuts, sesame",\nCleo,6,1,,`),
    );
    expect(rows.map(({ line, cells }) => [line, cells.name, cells.avoids])).toEqual([
      [2, 'Ada', 'egg\r\nmilk'],
      [5, 'Bram "B" Oduya', 'nuts, sesame'],
      [6, 'Cleo', ''],
    ]);
  });

  it('marks a row with more cells than the header, since a separator is loose in it', () => {
    const [row] = readRollCsv(bytes(`${HEAD}Ada,7,1,nuts,sesame,take-home\n`)).rows;
    expect(row?.beyond).toEqual(['take-home']);
  });

  it('is read with the headings and titles of an office: a title above, names in two columns, allergies and diets', () => {
    const file = readRollCsv(
      bytes(
        'Spring group, with families, by hand\n\nSurname;First name;Age (years);Allergies;Dietary needs;Parent e-mail;Phone\nFinch;Ada;7;nuts;vegan;a@homes.example;0100\nOduya;Bram;8;;;;0200\n',
      ),
    );
    expect(
      file.rows.map(({ line, cells }) => [line, cells.name, cells.age, cells.servings, cells.avoids, cells.contact]),
    ).toEqual([
      [4, 'Ada Finch', '7', '', 'nuts; vegan', 'a@homes.example; 0100'],
      [5, 'Bram Oduya', '8', '', '', '0200'],
    ]);
    expect(file.notes).toEqual([
      'What stands above the headings is not read: “Spring group, with families, by hand”.',
      '“First name” and “Surname” are read together as name.',
      '“Allergies” and “Dietary needs” are read together as avoids.',
      '“Parent e-mail” and “Phone” are read together as contact.',
    ]);
  });

  it('counts ages from birth dates', () => {
    const file = bytes('name,servings,avoids,Date of birth\nAda,1,,26/11/2018\nBo,1,,soon\n');
    const { rows, notes } = readRollCsv(file, {}, { today: '2026-11-25' });
    expect(rows.map(({ cells }) => cells.age)).toEqual(['7', 'soon']);
    expect(notes).toEqual(['“Date of birth” is read as the age on 2026-11-25.']);
    const both = readRollCsv(
      bytes('name,servings,DOB,age\nAda,1,2018-11-26,8\nBo,1,2018-11-26,\n'),
      {},
      { today: '2026-11-25' },
    );
    expect(both.rows.map(({ cells }) => cells.age)).toEqual(['8', '7']);
  });

  it('takes ticks under the name of an allergen or a diet for what is avoided', () => {
    const { rows, notes } = readRollCsv(
      bytes('name,servings,avoids,Milk,Nut free?,Vegetarian\nAda,1,kiwi,x,,YES\nBo,1,,-,no,\nCy,1,,,✓,0\n'),
    );
    expect(rows.map(({ cells }) => cells.avoids)).toEqual(['kiwi; milk; vegetarian', '', 'nut free']);
    expect(notes.join(' ')).toContain('“Milk” and “Nut free?” and “Vegetarian”: who has a tick there');
    // Something else than ticks stands there: what it means is asked.
    expect(() => readRollCsv(bytes('name,servings,Milk\nAda,1,a little\n'))).toThrow('“Milk” may say what somebody');
    expect(() => readRollCsv(bytes('name,servings,Milk ok?\nAda,1,no\n'))).toThrow('“Milk ok?” may say what somebody');
  });

  it('never passes by what may speak of food: without a heading, as notes, or said not to be used before', () => {
    const nameless = bytes('name,servings,avoids,\nAda,1,egg,PEANUT ALLERGY\nBo,1,,\n');
    expect(() => readRollCsv(nameless)).toThrow('“(no heading, column 4)” may say what somebody');
    const now = { '(no heading, column 4)': 'avoids' } as const;
    expect(readRollCsv(nameless, {}, { now }).rows.map(({ cells }) => cells.avoids)).toEqual([
      'egg; PEANUT ALLERGY',
      '',
    ]);
    for (const heading of ['Notes', 'Reacts to', 'Medical', 'Anything we should know?', 'Comments'])
      expect(() => readRollCsv(bytes(`name,servings,${heading}\nAda,1,\n`)), heading).toThrow('may say what somebody');
    const notes = (cell: string) => bytes(`name,servings,avoids,notes\nAda,1,,${cell}\n`);
    expect(readRollCsv(notes('brings a ball'), { notes: null }).ignored).toEqual(['notes']);
    expect(() => readRollCsv(notes('peanuts!'), { notes: null })).toThrow('“notes” may say what somebody');
    expect(readRollCsv(notes('peanuts!'), { notes: null }, { now: { notes: null } }).ignored).toEqual(['notes']);
  });

  it('that does not ask what is avoided says nobody avoids nothing: they were not asked', () => {
    const without = readRollCsv(bytes('name,servings\nAda,1\nBo,2\n'));
    expect(without.rows.map(({ cells }) => cells.avoids)).toEqual(['not asked', 'not asked']);
    expect(without.notes.join(' ')).toContain('No column says what people must not eat');
    const short = readRollCsv(bytes('name,servings,avoids\nAda,1,\nBo,2\n'));
    expect(short.rows.map(({ cells }) => cells.avoids)).toEqual(['', 'not asked']);
  });

  it('is read once somebody has said that a column is not used', () => {
    const file = bytes('name,plates,medical,avoids\nAda,7,,\n');
    expect(readRollCsv(file, { plates: null, medical: null })).toMatchObject({
      ignored: ['plates', 'medical'],
      rows: [{ cells: { name: 'Ada', servings: '' } }],
    });
  });

  it.each([
    ['an empty file', new Uint8Array(), 'The file is empty'],
    ['only white space', bytes(' \n\n'), 'The file holds no rows'],
    ['only a header', bytes(HEAD), 'nobody under it'],
    ['no name column', bytes('who,servings\nAda,1\n'), 'where the names are. The headings read: "who", "servings"'],
    ['a column nobody explained and none with servings', bytes('name,plates\nAda,7\n'), 'how many each kit feeds'],
    ['two columns of servings', bytes('name,serves,feeds\nA,1,1\n'), 'leave the other at “not used”'],
    ['one heading twice', bytes('name,serves,serves\nA,1,1\n'), 'Two columns are called "servings"'],
    ['a column that sounds of food', bytes('name,servings,medical\nAda,1,\n'), '“medical” may say what somebody must'],
    ['a column that speaks of food', bytes('name,servings,notes\nAda,1,has an EpiPen\n'), '“notes” may say what'],
    ['two name columns', bytes('name,child,servings\nA,B,1\n'), 'Two columns are called "name"'],
    ['a spreadsheet’s own format', Uint8Array.from([0x50, 0x4b, 3, 4, 0, 0, 0, 8]), 'This is not a text file'],
    ['a picture', Uint8Array.from({ length: 400 }, (_, n) => (n * 7) % 32), 'This is not a text file'],
    ['a quotation mark never closed', bytes(`${HEAD}Ada,7,1,,\n"Bram,8,1,,\n`), 'Line 3: a quotation mark'],
    ['3 MB', new Uint8Array(3 * 1024 * 1024).fill(65), 'larger than 2 MB'],
    ['2,001 rows', bytes(HEAD + 'Ada,7,1,,\n'.repeat(2001)), 'a roll holds at most 2000'],
  ])('%s is refused with what to do', (_what, file, message) => {
    expect(() => readRollCsv(file)).toThrow(message);
  });

  it('takes a row that adds up others for nobody, and says so; ages are understood as offices write them', () => {
    const read = (text: string) => readRollCsv(new TextEncoder().encode(text));
    const { rows, notes } = read('name,Yrs,servings\nAda,7,2\nBram,8,1\nTotal,,3\nGrand total: 2,,\n');
    expect(rows.map(({ cells }) => [cells.name, cells.age])).toEqual([
      ['Ada', '7'],
      ['Bram', '8'],
    ]);
    expect(notes).toContain('A row that adds up others is nobody: line 4, 5 is not read.');
    expect(read('name,Aged,servings\nTotal Ade,7,2\n').rows[0]?.cells).toMatchObject({ name: 'Total Ade', age: '7' });
  });

  it('is understood by the headings that offices make up: what asks of food, how many eat, a surname first', () => {
    const { rows } = readRollCsv(
      bytes(
        '"Last, First",DOB,Allergies/Dietary,Any food allergy? Please list,No. of people,Parent/Guardian 1,Mobile\n"Moss, Ava",2017-03-14,Y,sesame,4,Jo Moss,207 555 0133\n"van Dyke, Jo",2016-01-02,N,,2,,\n',
      ),
      {},
      { today: '2026-11-28' },
    );
    expect(rows.map(({ cells }) => cells)).toMatchObject([
      { name: 'Ava Moss', age: '9', avoids: 'sesame', servings: '4', contact: 'Jo Moss; 207 555 0133' },
      { name: 'Jo van Dyke', age: '10', avoids: '', servings: '2' },
    ]);
    // A yes is lost only where the column beside it says which.
    const avoids = (heads: string, row: string) =>
      readRollCsv(bytes(`name,servings,${heads}\nAda,1,${row}\n`)).rows[0]?.cells.avoids;
    expect(avoids('Allergies,Dietary', 'Yes,vegetarian')).toBe('Yes; vegetarian');
    for (const nothing of ['-', 'none', 'see form', 'Yes', ''])
      expect(avoids('Allergy?,What allergy', `Yes,${nothing}`)).toContain('Yes');
    expect(avoids('Allergy?,What allergy', 'No,egg')).toBe('egg');
    // Of a need alone, and of what is medical, somebody says what it is.
    for (const heading of ['Needs', 'Medical'])
      expect(() => readRollCsv(bytes(`name,servings,${heading}\nAda,1,\n`))).toThrow(ColumnsUnclear);
  });
});
