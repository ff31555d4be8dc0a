/** Who stands at a station, with what each has before them. */
interface Props {
  readonly title: string;
  readonly pairs: readonly {
    readonly id: string;
    readonly names: readonly string[];
    readonly tools: readonly string[];
  }[];
  /** "hob", "oven": what is hot at its end. */
  readonly heats: readonly string[];
}

const WIDTH = 420;
/** With children on both sides of the table, and on one. */
const HEIGHTS = { both: 250, one: 200 } as const;
const TABLE = { x: 10, y: 62, width: 400, height: 126 };
/** Two of a pair stand side by side. */
const SHOULDERS = 52;
/** Tools that one draws; the rest is said in words. */
const MOST_TOOLS = 4;

/** A tool seen from above, about 30 wide and 30 high, around (0, 0). */
function Tool({ tool }: { tool: string }) {
  switch (tool) {
    case 'board':
      return <rect x={-15} y={-10} width={30} height={20} rx={3} fill="none" stroke="currentColor" strokeWidth={2} />;
    case 'knife':
      return <path d="M-14 10 L4 -8 Q12 -14 14 -12 Q12 -4 2 2 L-10 13 Z" fill="currentColor" />;
    case 'bowl':
      return (
        <>
          <circle r={13} fill="none" stroke="currentColor" strokeWidth={2} />
          <circle r={8} fill="none" stroke="currentColor" />
        </>
      );
    case 'pan':
    case 'pot':
      return (
        <>
          <circle cx={-3} r={11} fill="none" stroke="currentColor" strokeWidth={3} />
          <path d={tool === 'pan' ? 'M8 0 L18 0' : 'M8 -4 L13 -4 M8 4 L13 4'} stroke="currentColor" strokeWidth={4} />
        </>
      );
    case 'grater':
      return (
        <>
          <path d="M-8 12 L-5 -12 L5 -12 L8 12 Z" fill="none" stroke="currentColor" strokeWidth={2} />
          <path d="M-3 -6 L3 -6 M-4 0 L4 0 M-5 6 L5 6" stroke="currentColor" strokeWidth={2} strokeDasharray="2 2" />
        </>
      );
    case 'whisk':
      return (
        <path
          d="M-12 12 L-2 2 M-2 2 Q-4 -12 10 -12 Q14 2 -2 2 M-2 2 Q6 -2 10 -12"
          fill="none"
          stroke="currentColor"
          strokeWidth={2}
        />
      );
    case 'sieve':
      return (
        <>
          <circle cx={-3} r={10} fill="none" stroke="currentColor" strokeWidth={2} strokeDasharray="2 2" />
          <path d="M7 0 L17 0" stroke="currentColor" strokeWidth={2} />
        </>
      );
    case 'rolling pin':
      return (
        <path d="M-16 0 L-11 0 M11 0 L16 0 M-11 -4 H11 V4 H-11 Z" fill="none" stroke="currentColor" strokeWidth={2} />
      );
    case 'tray':
      return <rect x={-16} y={-11} width={32} height={22} rx={2} fill="none" stroke="currentColor" strokeWidth={3} />;
    case 'peeler':
      return <path d="M-12 0 L2 0 M2 -5 Q14 -6 14 0 Q14 6 2 5 Z" fill="none" stroke="currentColor" strokeWidth={2} />;
    default:
      return (
        <rect x={-11} y={-11} width={22} height={22} rx={11} fill="none" stroke="currentColor" strokeDasharray="3 3" />
      );
  }
}

/** One station from above: its people around the table, their tools before them, the bowl for scraps in the middle. */
export function StationPicture({ title, pairs, heats }: Props) {
  const above = pairs.filter((_, at) => at % 2 === 0);
  const below = pairs.filter((_, at) => at % 2 === 1);
  const room = heats.length > 0 ? TABLE.width - 74 : TABLE.width;
  const place = (row: typeof pairs, at: number) => TABLE.x + (room / row.length) * (at + 0.5);
  const said = pairs
    .map(({ names, id, tools }) => `${names.join(' and ') || id}${tools.length > 0 ? ` with ${tools.join(', ')}` : ''}`)
    .join('; ');
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${below.length > 0 ? HEIGHTS.both : HEIGHTS.one}`}
      role="img"
      aria-label={`${title} from above: ${said}; a bowl for scraps in the middle${heats.length > 0 ? `; ${heats.join(', ')} at the end` : ''}`}
      className="w-full"
    >
      <rect {...TABLE} rx={14} fill="none" stroke="currentColor" strokeWidth={2} />
      {[above, below].map((row, side) =>
        row.map(({ id, names, tools }, at) => {
          const x = place(row, at);
          const isAbove = side === 0;
          const shown = tools.slice(0, MOST_TOOLS);
          return (
            <g key={id}>
              {(names.length > 0 ? names : [id]).map((name, n, all) => {
                const own = x + (n - (all.length - 1) / 2) * Math.min(SHOULDERS * 2, room / row.length / 2);
                return (
                  <g key={name}>
                    <circle cx={own} cy={isAbove ? 42 : 208} r={12} fill="currentColor" opacity={0.85} />
                    <text
                      x={own}
                      y={isAbove ? 22 : 240}
                      textAnchor="middle"
                      fontSize={13}
                      fontWeight={600}
                      fill="currentColor"
                    >
                      {name.split(' ')[0]}
                    </text>
                  </g>
                );
              })}
              {shown.map((tool, n) => (
                <g
                  key={tool}
                  transform={`translate(${x + (n - (shown.length - 1) / 2) * Math.min(38, room / row.length / Math.max(1, shown.length))} ${isAbove ? 84 : 166})`}
                >
                  <Tool tool={tool} />
                </g>
              ))}
            </g>
          );
        }),
      )}
      <g transform={`translate(${TABLE.x + room / 2} ${TABLE.y + TABLE.height / 2 + (below.length > 0 ? 0 : 22)})`}>
        <circle r={21} fill="none" stroke="currentColor" strokeDasharray="4 3" strokeWidth={2} />
        <text textAnchor="middle" y={4} fontSize={10} fill="currentColor">
          scraps
        </text>
      </g>
      {heats.length > 0 && (
        <g transform={`translate(${TABLE.x + TABLE.width - 40} ${TABLE.y + TABLE.height / 2})`}>
          <rect x={-28} y={-50} width={56} height={100} rx={8} fill="none" stroke="currentColor" strokeWidth={2} />
          {heats.slice(0, 2).map((heat, at) => (
            <g key={heat} transform={`translate(0 ${heats.length === 1 ? 0 : at * 46 - 23})`}>
              <circle r={15} fill="none" stroke="currentColor" strokeWidth={3} />
              <circle r={8} fill="none" stroke="currentColor" />
              <text textAnchor="middle" y={heats.length === 1 ? 34 : 27} fontSize={10} fill="currentColor">
                {heat}
              </text>
            </g>
          ))}
        </g>
      )}
    </svg>
  );
}
