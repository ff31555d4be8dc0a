const UUID = /^[\da-f]{8}-[\da-f]{4}-[\da-f]{4}-[\da-f]{4}-[\da-f]{12}$/i;
const DAY = /^\d{4}-\d{2}(?:-\d{2})?$/;
/** Behind these stands a secret that opens a page by itself. */
const DOORS = new Set(['my', 'kit', 'invite', 'reset', 'feeds']);
const DEEPEST = 7;

/**
 * The route that an address belongs to: what stands in it for one person, session or day is taken out, so that there are few of
 * them, and none says whose it was.
 *
 * @example routeOf('/api/bench/01a22a15-b597-704c-9c84-726a5ddaf2ed/ticks?since=3') //=> '/api/bench/:id/ticks'
 */
export function routeOf(address: string): string {
  const [path = ''] = address.split('?');
  if (path.startsWith('/_next/')) return '/_next';
  const parts = path.split('/').slice(1, DEEPEST + 1);
  return `/${parts
    .map((part, at) => {
      if (UUID.test(part)) return ':id';
      if (DAY.test(part)) return ':day';
      if (at > 0 && DOORS.has(parts[at - 1] as string)) return ':secret';
      return /^[a-z][a-z-]{0,30}(?:\.[a-z]{2,5})?$|^v\d$|^$/.test(part) ? part : ':other';
    })
    .join('/')}`;
}
