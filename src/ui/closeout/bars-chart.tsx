import { BarChart } from 'echarts/charts';
import { AriaComponent, GridComponent } from 'echarts/components';
import { init, use } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import type { Bar } from '@/core/closeout/report/say-figure';

use([BarChart, GridComponent, AriaComponent, SVGRenderer]);

const ROW = 26;
const WIDTH = 430;
const LABELS = 165;
const LONGEST = 27;

/** Bars with their numbers, drawn on the server; what they say stands in a sentence above them, and read out row by row. */
export function BarsChart({
  bars,
  unit,
  says,
  most,
}: {
  bars: readonly Bar[];
  unit: string;
  says: string;
  most?: number;
}) {
  if (bars.length === 0) return <p>{says}</p>;
  const chart = init(null, null, { renderer: 'svg', ssr: true, width: WIDTH, height: bars.length * ROW + 20 });
  const text = { fontFamily: 'inherit', fontSize: 12, color: 'currentColor' };
  const short = (label: string) => (label.length > LONGEST ? `${label.slice(0, LONGEST - 1)}…` : label);
  chart.setOption({
    animation: false,
    textStyle: text,
    grid: { left: LABELS, right: 44, top: 4, bottom: 4 },
    xAxis: { type: 'value', min: 0, ...(most ? { max: most } : {}), show: false },
    yAxis: {
      type: 'category',
      inverse: true,
      data: bars.map(({ label }) => short(label)),
      axisLabel: text,
      axisTick: { show: false },
    },
    series: [
      {
        type: 'bar',
        barWidth: 14,
        itemStyle: { color: '#00575f' },
        label: { show: true, position: 'right', formatter: unit === '%' ? '{c} %' : '{c}', ...text },
        data: bars.map(({ value }) => value),
      },
    ],
  });
  const svg = chart.renderToSVGString();
  chart.dispose();
  return (
    <figure>
      <figcaption className="mb-1">{says}</figcaption>
      {/* ECharts writes what was typed (titles of sessions) as text of its drawing, escaped. */}
      <div className="max-w-full overflow-x-auto" aria-hidden="true" dangerouslySetInnerHTML={{ __html: svg }} />
      <ul className="sr-only">
        {bars.map(({ label, value }) => (
          <li key={label}>
            {label}: {value} {unit}
          </li>
        ))}
      </ul>
    </figure>
  );
}
