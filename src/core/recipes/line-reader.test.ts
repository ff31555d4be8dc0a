import { describe, expect, it } from 'vitest';
import lines from '../../../tests/lines/labelled.json';
import unseen from '../../../tests/lines/unseen.json';
import { parseAmount } from '../quantity/amount';
import { equals, toText } from '../quantity/rational';
import { TYPICAL } from '../reference/reference';
import { plainNumber } from './amount-reader';
import { type ReadPart, readLine } from './line-reader';

/** Lines with what they say: amount, unit, food, preparation; written before the reader was. */
const labelled = lines as [text: string, amount: string, unit: string, ingredient: string, preparation: string][];

const sayAmount = ({ amount }: ReadPart) =>
  !amount
    ? ''
    : equals(amount.least, amount.most)
      ? toText(amount.least)
      : `${toText(amount.least)}-${toText(amount.most)}`;
const exact = (amount: string) =>
  amount === ''
    ? ''
    : amount
        .split(/(?<=\d)-(?=\d)/)
        .map((end) => toText(parseAmount(plainNumber(end))))
        .join('-');

/** What the reader made of a line, in the columns of the labelled set. */
function understood(text: string): string[] {
  const { parts } = readLine(text, TYPICAL);
  const [first] = parts as [ReadPart];
  return [
    sayAmount(first),
    first.unit?.key ?? first.vague,
    parts.map(({ ingredient }) => ingredient ?? '?').join(' & '),
    parts
      .map(({ preparation }) => preparation)
      .filter(Boolean)
      .join(', '),
  ];
}

/** Lines that come out otherwise than labelled, said so that one sees why. */
const misread = (set: typeof labelled) =>
  set.flatMap(([text, amount, unit, ingredient, preparation]) => {
    const wanted = [exact(amount), unit, ingredient, preparation];
    const got = understood(text);
    return JSON.stringify(got) === JSON.stringify(wanted)
      ? []
      : [`${text}\n   got ${got.join(' | ')}\n   not ${wanted.join(' | ')}`];
  });

describe('labelled lines', () => {
  it.each([
    ['the set the reader was written for', labelled, 0.98],
    ['a second set, labelled before the reader met it', unseen as typeof labelled, 0.9],
  ] as const)('are read right: %s', (name, set, least) => {
    const wrong = misread(set);
    console.info(`${name}: ${set.length - wrong.length} of ${set.length} right\n${wrong.join('\n')}`);
    expect(1 - wrong.length / set.length).toBeGreaterThanOrEqual(least);
  });
});
