/**
 * Keeps the personal pages of the crew on their phones, and a class on its tablets: what was opened once opens without a network. Pages come from the network
 * where there is one, so that nobody reads what was changed; their parts carry a fingerprint in their name and never change.
 */
const WORKER = `
const KEPT = 'kept ' + self.registration.scope;
// A class is of its day: nobody finds its names on a tablet next week.
const LONGEST = self.registration.scope.endsWith('/live/') ? 36 * 3600 * 1000 : Infinity;
const isFresh = (kept) => Date.now() - Date.parse(kept.headers.get('date') ?? '') < LONGEST || LONGEST === Infinity;
self.addEventListener('install', () => self.skipWaiting());
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()));
const keep = async (request, response) => {
  if (response.ok) (await caches.open(KEPT)).put(request, response.clone());
  return response;
};
// The first page of a visit was there before this worker: it says itself what is to be kept of it.
self.addEventListener('message', (event) => {
  if (!Array.isArray(event.data?.keep)) return;
  event.waitUntil(Promise.all(event.data.keep.map((url) =>
    fetch(url, { credentials: 'same-origin' }).then((answer) => answer.redirected || keep(url, answer)).catch(() => {}))));
});
self.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== 'GET' || url.origin !== self.location.origin) return;
  if (url.pathname.startsWith('/_next/static/'))
    event.respondWith(caches.match(request).then((kept) => kept ?? fetch(request).then((answer) => keep(request, answer))));
  else if (request.mode === 'navigate')
    event.respondWith(
      fetch(request).then((answer) => {
        // A link that was ended is not kept: nobody reads on what is no longer theirs.
        if (answer.status === 404 || answer.status === 410 || answer.type === 'opaqueredirect') caches.open(KEPT).then((all) => all.delete(request));
        return keep(request, answer);
      }).catch(async () => {
        const kept = await caches.match(request);
        return kept && isFresh(kept) ? kept : Response.error();
      }),
    );
});
`;

export const dynamic = 'force-static';

export const GET = (): Response =>
  new Response(WORKER, {
    headers: {
      'content-type': 'text/javascript; charset=utf-8',
      'service-worker-allowed': '/',
      'cache-control': 'no-cache',
    },
  });
