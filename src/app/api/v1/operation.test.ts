import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { pageOfItems, parseJson } from './operation';

const items = ['d', 'a', 'c', 'b', 'e'].map((id) => ({ id }));
const page = (limit: number, after?: string) =>
  pageOfItems(items, { query: { limit, after }, url: new URL(`http://kitchen.test/api/v1/things?limit=${limit}`) });

describe('a page of a list', () => {
  it('is in order of id, whatever order the list is in, and names the next', () => {
    expect(page(2)).toEqual({ items: [{ id: 'a' }, { id: 'b' }], next: '/api/v1/things?limit=2&after=b' });
    expect(page(2, 'b')).toEqual({ items: [{ id: 'c' }, { id: 'd' }], next: '/api/v1/things?limit=2&after=d' });
  });

  it('is the last when nothing follows', () => {
    expect(page(2, 'd')).toEqual({ items: [{ id: 'e' }], next: null });
    expect(page(5)).toMatchObject({ next: null });
    expect(page(5, 'z')).toEqual({ items: [], next: null });
  });

  it('goes on after an item that is gone', () => {
    expect(page(9, 'bb').items).toEqual([{ id: 'c' }, { id: 'd' }, { id: 'e' }]);
  });
});

describe('a body', () => {
  it('is JSON in UTF-8, or is refused with what is wrong', () => {
    const bytes = (text: string) => new TextEncoder().encode(text);
    expect(parseJson(bytes('{"a":[1]}'))).toEqual({ a: [1] });
    for (const broken of ['', '{', 'nul', '{"a":1}}']) {
      expect(() => parseJson(bytes(broken))).toThrow('The body is not JSON in UTF-8');
    }
    expect(() => parseJson(new Uint8Array([0x22, 0xff, 0x22]))).toThrow('The body is not JSON in UTF-8');
  });

  it('keeps names that are special to a program as plain names', () => {
    const value = z.record(z.string(), z.number()).parse(parseJson(new TextEncoder().encode('{"constructor":1}')));
    expect(Object.keys(value)).toEqual(['constructor']);
  });
});
