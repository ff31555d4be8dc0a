export const dynamic = 'force-dynamic';

/** The process is alive and hears. */
export const GET = (): Response => Response.json({ alive: true }, { headers: { 'cache-control': 'no-store' } });
