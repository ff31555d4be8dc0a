import { BarChart } from 'echarts/charts';
import { AriaComponent, GridComponent, LegendComponent } from 'echarts/components';
import { init, use } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import type { Loss } from '@/core/buying/nothing-lost';
import { LOSS_REASONS } from '@/core/buying/stock';
import type { Saying } from '@/core/plan/saying';

import { rational } from '@/core/quantity/rational';
import { sayGrams } from '@/core/quantity/say';

use([BarChart, GridComponent, LegendComponent, AriaComponent, SVGRenderer]);

const ROW = 34;
const WIDTH = 480;
/** Told apart without colour too: each reason has a pattern of its own. */
const LOOKS = [
  { color: '#00575f' },
  {
    color: '#ffffff',
    decal: { symbol: 'rect', dashArrayX: [1, 0], dashArrayY: [2, 4], rotation: -Math.PI / 4, color: '#00575f' },
  },
  { color: '#c98a00' },
  { color: '#ffffff', decal: { symbol: 'circle', dashArrayX: [4, 4], dashArrayY: [4, 4], color: '#7a2e2e' } },
  { color: '#7a2e2e' },
] as const;

/** Grams thrown away by month and reason, drawn on the server; the same in numbers below, with the money. */
export function LossChart({ losses, say }: { losses: readonly Loss[]; say: Saying }) {
  const months = [...new Set(losses.map(({ month }) => month))].sort();
  const reasons = LOSS_REASONS.filter((reason) => losses.some((loss) => loss.reason === reason));
  const height = months.length * ROW + 90;
  const chart = init(null, null, { renderer: 'svg', ssr: true, width: WIDTH, height });
  const text = { fontFamily: 'inherit', fontSize: 13, color: 'currentColor' };
  chart.setOption({
    animation: false,
    textStyle: text,
    legend: { top: 0, left: 0, textStyle: text },
    grid: { left: 130, right: 24, top: 52, bottom: 24 },
    xAxis: { type: 'value', name: 'g', axisLabel: text, splitLine: { lineStyle: { color: '#8884' } } },
    yAxis: { type: 'category', data: months.map(say.month), axisLabel: text, axisTick: { show: false } },
    series: reasons.map((reason, at) => ({
      name: reason,
      type: 'bar',
      stack: 'all',
      itemStyle: { ...LOOKS[at % LOOKS.length], borderColor: '#00575f', borderWidth: 1 },
      data: months.map((month) => losses.find((loss) => loss.month === month && loss.reason === reason)?.grams ?? 0),
    })),
  });
  const svg = chart.renderToSVGString();
  chart.dispose();
  return (
    <figure>
      {/* Our own drawing of numbers and of reasons from a fixed list: nothing in it was typed by anybody. */}
      <div className="max-w-full overflow-x-auto" aria-hidden="true" dangerouslySetInnerHTML={{ __html: svg }} />
      <table className="table table-sm">
        <thead>
          <tr>
            <th scope="col">Month</th>
            <th scope="col">Why</th>
            <th scope="col" className="text-right">
              Weight
            </th>
            <th scope="col" className="text-right">
              Worth
            </th>
          </tr>
        </thead>
        <tbody>
          {losses.map(({ month, reason, grams, money }) => (
            <tr key={`${month} ${reason}`}>
              <td>{say.month(month)}</td>
              <td>{reason}</td>
              <td className="text-right tabular-nums">{sayGrams(rational(grams))}</td>
              <td className="text-right tabular-nums">{money === null ? 'not known' : say.money(money)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </figure>
  );
}
