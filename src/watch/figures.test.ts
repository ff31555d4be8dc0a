import { Histogram, Registry } from 'prom-client';
import { expect, it } from 'vitest';
import { figuresOf, stepOf } from './figures';

it('says of each route how many were asked, how many failed, and within what most were answered', async () => {
  const registry = new Registry();
  const requests = new Histogram({
    name: 'logistra_request_seconds',
    help: '-',
    labelNames: ['method', 'route', 'status'],
    buckets: [0.1, 0.4, 1],
    registers: [registry],
  });
  const answer = (route: string, status: string, seconds: number) =>
    requests.observe({ method: 'GET', route, status }, seconds);
  for (let n = 0; n < 18; n++) answer('/courses', '2xx', 0.05);
  answer('/courses', '5xx', 0.3);
  answer('/courses', '2xx', 9);
  answer('/', '2xx', 0.5);
  const { routes, streams } = await figuresOf(registry);
  expect(routes).toEqual([
    { route: '/courses', count: 20, failed: 5, p50: 0.1, p95: 0.4 },
    { route: '/', count: 1, failed: 0, p50: 1, p95: 1 },
  ]);
  expect(streams).toBe(0);
  expect(stepOf(new Map(), 0.95)).toBe(0);
});
