import { BarChart } from 'echarts/charts';
import { AriaComponent, GridComponent, MarkLineComponent } from 'echarts/components';
import { init, use } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';

use([BarChart, GridComponent, MarkLineComponent, AriaComponent, SVGRenderer]);

const WIDTH = 420;
const HEIGHT = 180;

/** How likely each number of people is, with a line at the number of kits. Drawn on the server; told in a sentence beside it. */
export function ReserveChart({ chances, kits }: { chances: readonly number[]; kits: number }) {
  // Only what may happen at all: the rest is empty paper.
  const from = chances.findIndex((chance) => chance > 0.002);
  const to = chances.findLastIndex((chance) => chance > 0.002);
  const shown = chances.slice(from, to + 1);
  const chart = init(null, null, { renderer: 'svg', ssr: true, width: WIDTH, height: HEIGHT });
  const text = { fontFamily: 'inherit', fontSize: 13, color: 'currentColor' };
  chart.setOption({
    animation: false,
    textStyle: text,
    grid: { left: 44, right: 16, top: 28, bottom: 40 },
    xAxis: {
      type: 'category',
      data: shown.map((_, at) => String(from + at)),
      name: 'people who come',
      nameLocation: 'middle',
      nameGap: 26,
      axisLabel: text,
    },
    yAxis: {
      type: 'value',
      axisLabel: { ...text, formatter: '{value} %' },
      splitLine: { lineStyle: { color: '#8884' } },
    },
    series: [
      {
        type: 'bar',
        data: shown.map((chance, at) => ({
          value: Math.round(chance * 1000) / 10,
          // More people than kits: somebody gets none.
          itemStyle:
            from + at > kits
              ? { color: '#ffffff', borderColor: '#a02020', borderWidth: 2, borderType: 'dashed' }
              : { color: '#00575f' },
        })),
        markLine: {
          symbol: 'none',
          label: { formatter: `${kits} kits`, ...text },
          lineStyle: { color: 'currentColor', type: 'solid' },
          data: [{ xAxis: String(Math.min(Math.max(kits, from), to)) }],
        },
      },
    ],
  });
  const svg = chart.renderToSVGString();
  chart.dispose();
  return <div className="max-w-full overflow-x-auto" aria-hidden="true" dangerouslySetInnerHTML={{ __html: svg }} />;
}
