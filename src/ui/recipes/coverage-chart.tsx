import { BarChart } from 'echarts/charts';
import { AriaComponent, GridComponent, LegendComponent } from 'echarts/components';
import { init, use } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import type { CoverageCount } from '@/core/recipes/choosing/course-dishes';

use([BarChart, GridComponent, LegendComponent, AriaComponent, SVGRenderer]);

const ROW = 26;
const WIDTH = 300;

/**
 * How many sessions bring each plate group and vegetable family: chosen dishes full, proposed ones hatched. Drawn on the
 * server, so that no script is sent; the same numbers stand in the table below it.
 */
export function CoverageChart({ coverage }: { coverage: readonly CoverageCount[] }) {
  const rows = [...coverage].reverse();
  const height = rows.length * ROW + 60;
  const chart = init(null, null, { renderer: 'svg', ssr: true, width: WIDTH, height });
  const text = { fontFamily: 'inherit', fontSize: 13, color: 'currentColor' };
  chart.setOption({
    animation: false,
    textStyle: text,
    legend: { top: 0, left: 0, textStyle: text, itemStyle: { borderColor: '#00575f', borderWidth: 1 } },
    grid: { left: 130, right: 24, top: 32, bottom: 24 },
    xAxis: { type: 'value', minInterval: 1, axisLabel: text, splitLine: { lineStyle: { color: '#8884' } } },
    yAxis: { type: 'category', data: rows.map(({ name }) => name), axisLabel: text, axisTick: { show: false } },
    series: [
      {
        name: 'chosen',
        type: 'bar',
        stack: 'all',
        itemStyle: { color: '#00575f' },
        data: rows.map(({ chosen }) => chosen),
      },
      {
        name: 'with what is proposed',
        type: 'bar',
        stack: 'all',
        itemStyle: {
          color: '#ffffff',
          borderColor: '#00575f',
          borderWidth: 1,
          decal: { symbol: 'rect', dashArrayX: [1, 0], dashArrayY: [2, 4], rotation: -Math.PI / 4, color: '#00575f' },
        },
        data: rows.map(({ proposed }) => proposed),
      },
    ],
  });
  const svg = chart.renderToSVGString();
  chart.dispose();
  return (
    <figure>
      {/* Our own drawing of numbers and of names from our own table: nothing in it was typed by anybody. */}
      <div className="max-w-full overflow-x-auto" aria-hidden="true" dangerouslySetInnerHTML={{ __html: svg }} />
      <details className="text-sm">
        <summary className="cursor-pointer">The same in numbers</summary>
        <table className="table table-sm">
          <thead>
            <tr>
              <th scope="col">Covers</th>
              <th scope="col" className="text-right">
                Sessions
              </th>
              <th scope="col" className="text-right">
                Proposed
              </th>
            </tr>
          </thead>
          <tbody>
            {coverage.map(({ name, kind, chosen, proposed }) => (
              <tr key={kind + name}>
                <td>
                  {name} <span className="text-xs">({kind})</span>
                </td>
                <td className="text-right">{chosen}</td>
                <td className="text-right">{proposed}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </figure>
  );
}
