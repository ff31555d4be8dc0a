import { describe, expect, it } from 'vitest';
import { withoutWords, wordsToErase } from './erased-words';

describe('the words of a family', () => {
  const words = wordsToErase(
    { names: ['Ivo Castellan', 'Mira', 'Jo', 'Ada Finch'], others: ['ivo@quay.example; 0123 456', '2 Harbour Steps'] },
    ['ADA  FINCH'],
  );

  it('are whole names and addresses for sure, single names likely, and never somebody else’s name', () => {
    expect(words).toEqual({
      sure: ['ivo@quay.example; 0123 456', 'ivo@quay.example', '2 Harbour Steps', 'Ivo Castellan', '0123 456'],
      likely: ['Mira'],
    });
  });

  it.each([
    ['Ring ivo  castellan at 2 harbour steps!', 'Ring Erased at Erased!'],
    ['Ivo Castellans', 'Ivo Castellans'],
    ['{"contact":"ivo@quay.example; 0123 456"}', '{"contact":"Erased"}'],
    ['Łivo Castellan', 'Łivo Castellan'],
  ])('go from “%s”', (text, left) => {
    expect(withoutWords(text, words.sure)).toBe(left);
  });

  it('go as JSON writes them, and whatever signs they hold', () => {
    const name = 'Ivo "Ink" (C.) \\ Castellan';
    expect(withoutWords(JSON.stringify({ name }), [name])).toBe('{"name":"Erased"}');
    expect(withoutWords('nothing', [])).toBe('nothing');
  });
});
