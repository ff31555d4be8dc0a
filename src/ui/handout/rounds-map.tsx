import type { Point } from '@/core/handout/doors/door';

interface Way {
  readonly name: string;
  readonly stops: readonly { readonly householdId: string; readonly name: string; readonly at: Point }[];
  readonly isHome: boolean;
}

const [WIDTH, HEIGHT, EDGE] = [640, 360, 34];
/** Lines are told apart by their dashes, in black and white too. */
const DASHES = ['', '10 5', '3 5', '14 4 3 4', '1 7', '20 6'];

/** Where the doors lie and how the rounds go, without a map behind: north is up. */
export function RoundsMap({
  kitchen,
  ways,
  left,
}: {
  readonly kitchen: Point;
  readonly ways: readonly Way[];
  /** Doors that no round goes to. */
  readonly left: readonly { readonly name: string; readonly at: Point }[];
}) {
  const points = [kitchen, ...ways.flatMap(({ stops }) => stops.map(({ at }) => at)), ...left.map(({ at }) => at)];
  const narrow = Math.cos((kitchen[0] * Math.PI) / 180);
  const flat = points.map(([north, east]) => [east * narrow, north] as const);
  const [xs, ys] = [flat.map(([x]) => x), flat.map(([, y]) => y)];
  const [west, south] = [Math.min(...xs), Math.min(...ys)];
  const scale = Math.min(
    (WIDTH - 2 * EDGE) / Math.max(1e-6, Math.max(...xs) - west),
    (HEIGHT - 2 * EDGE) / Math.max(1e-6, Math.max(...ys) - south),
  );
  // Whichever way the doors lie farther apart fills the picture; the other is in the middle of it.
  const [side, below] = [
    (WIDTH - (Math.max(...xs) - west) * scale) / 2,
    (HEIGHT - (Math.max(...ys) - south) * scale) / 2,
  ];
  const place = ([north, east]: Point) => ({
    x: side + (east * narrow - west) * scale,
    y: HEIGHT - below - (north - south) * scale,
  });
  const home = place(kitchen);
  return (
    <figure className="sheet p-3">
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-labelledby="rounds-map" className="max-h-96 w-full">
        <title id="rounds-map">
          {ways.length === 0
            ? `${left.length} doors around the kitchen`
            : `${ways.map(({ name, stops }) => `${name}: ${stops.map((stop) => stop.name).join(', ')}`).join('. ')}`}
        </title>
        {ways.map(({ name, stops, isHome }, at) => {
          const path = [home, ...stops.map((stop) => place(stop.at)), ...(isHome ? [home] : [])];
          return (
            <g key={name + String(at)}>
              <polyline
                points={path.map(({ x, y }) => `${x},${y}`).join(' ')}
                className="fill-none stroke-primary"
                strokeWidth={2.5}
                strokeDasharray={DASHES[at % DASHES.length]}
              />
              {stops.map((stop, order) => {
                const { x, y } = place(stop.at);
                return (
                  <g key={stop.householdId}>
                    <circle cx={x} cy={y} r={11} className="fill-base-100 stroke-primary" strokeWidth={2} />
                    <text x={x} y={y + 4} textAnchor="middle" className="fill-base-content text-[11px] font-bold">
                      {String.fromCharCode(65 + at)}
                      {order + 1}
                    </text>
                  </g>
                );
              })}
            </g>
          );
        })}
        {left.map(({ name, at }) => {
          const { x, y } = place(at);
          return (
            <g key={name}>
              <circle
                cx={x}
                cy={y}
                r={8}
                className="fill-base-100 stroke-error"
                strokeWidth={2}
                strokeDasharray="3 2"
              />
              <text x={x + 12} y={y + 4} className="fill-base-content text-[11px]">
                {name}
              </text>
            </g>
          );
        })}
        <rect x={home.x - 9} y={home.y - 9} width={18} height={18} className="fill-secondary" />
        <text x={home.x + 14} y={home.y + 4} className="fill-base-content text-[12px] font-bold">
          kitchen
        </text>
      </svg>
      <figcaption className="text-sm">
        North is up, ways are drawn straight.{' '}
        {ways.map(({ name }, at) => `${String.fromCharCode(65 + at)}: ${name}`).join(', ')}
      </figcaption>
    </figure>
  );
}
