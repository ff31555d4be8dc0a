import { describe, expect, it } from 'vitest';
import { routeOf } from './routes';

describe('the route of an address', () => {
  it.each([
    ['/api/bench/01a22a15-b597-704c-9c84-726a5ddaf2ed/ticks?since=3', '/api/bench/:id/ticks'],
    ['/', '/'],
    ['/recipes/import', '/recipes/import'],
    ['/prep/2026-11-30', '/prep/:day'],
    ['/my/Zm9vYmFyLXNlY3JldA', '/my/:secret'],
    ['/kit/ada', '/kit/:secret'],
    ['/feeds/abcdefgh.ics', '/feeds/:secret'],
    ['/api/v1/courses/01a22a15-b597-704c-9c84-726a5ddaf2ed/roll', '/api/v1/courses/:id/roll'],
    ['/people/Ada%20Finch', '/people/:other'],
    ['/_next/static/chunks/4bd1b696.js', '/_next'],
    ['/a/b/c/d/e/f/g/h/i', '/a/b/c/d/e/f/g'],
  ])('%s is %s, and says nobody’s name, day or secret', (address, route) => {
    expect(routeOf(address)).toBe(route);
  });
});
