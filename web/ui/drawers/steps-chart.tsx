'use client';

import { Box } from '@chakra-ui/react';
import { BarChart } from 'echarts/charts';
import { AriaComponent, GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { useTheme } from 'next-themes';
import { useEffect, useRef } from 'react';

echarts.use([BarChart, GridComponent, TooltipComponent, MarkLineComponent, AriaComponent, SVGRenderer]);

interface Measured {
  readonly id: string;
  readonly name: string;
  readonly colour: string;
  readonly steps?: readonly number[];
}

/** The chart in words, for screen readers. */
function spoken(ribbons: readonly Measured[], uneven: boolean, ratio: number): string {
  const metres = (x: number) => `${Number(x.toPrecision(3))} m`;
  const each = ribbons
    .filter((r) => r.steps && r.steps.length > 0)
    .map(({ name, steps }) => {
      const across = metres(steps!.at(-1)!);
      return `${name}: ${metres(Math.min(...steps!))} to ${metres(Math.max(...steps!))}, ${across} across the seam.`;
    });
  const seam = !uneven
    ? 'The step across the seam is like its neighbours.'
    : Number.isFinite(ratio)
      ? `The step across the seam is ${ratio.toFixed(1)} times its neighbours.`
      : 'Nothing moves but across the seam.';
  return `Movement from frame to frame. ${each.join(' ')} ${seam}`;
}

/** Movement of each ribbon from frame to frame; the step across the seam is in the middle. */
export function StepsChart({ ribbons, ratio }: { ribbons: readonly Measured[]; ratio: number }) {
  const holder = useRef<HTMLDivElement>(null);
  const { resolvedTheme } = useTheme();
  useEffect(() => {
    const dusk = resolvedTheme === 'dark';
    const ink = dusk ? '#EEEAE2' : '#24262B';
    const muted = dusk ? '#ABA79F' : '#67645F';
    const chart = echarts.init(holder.current!, undefined, { renderer: 'svg' });
    const n = ribbons[0]?.steps?.length ?? 0;
    const half = Math.floor(n / 2);
    // Step n−1, from frame n−1 to frame 0, goes to the middle.
    const order = Array.from({ length: n }, (_, i) => (i + n - 1 - half + n) % n);
    const uneven = ratio > 1.5 || ratio < 0.67;
    chart.setOption({
      animation: false,
      aria: { enabled: true, label: { description: spoken(ribbons, uneven, ratio) } },
      grid: { left: 4, right: 4, top: 20, bottom: 18 },
      tooltip: {
        trigger: 'axis',
        confine: true,
        textStyle: { fontSize: 12 },
        formatter: (items: { dataIndex: number; seriesName: string; value: number }[]) => {
          const f = order[items[0].dataIndex];
          return (
            `Frame ${f} → ` +
            `${(f + 1) % n}<br>${items.map((i) => `${i.seriesName}: ${Number(i.value).toPrecision(3)} m`).join('<br>')}`
          );
        },
      },
      xAxis: {
        type: 'category',
        data: order.map((f) => String((f + 1) % n)),
        axisTick: { show: false },
        axisLine: { show: false },
        axisLabel: {
          fontSize: 10,
          color: muted,
          interval: (i: number) => i === half || (i - half) % Math.max(1, Math.round(n / 4)) === 0,
        },
      },
      yAxis: { type: 'value', show: false, min: 0 },
      series: ribbons.map((r, k) => ({
        name: r.name,
        type: 'bar',
        stack: 'steps',
        barCategoryGap: '25%',
        data: order.map((f) => ({
          value: r.steps?.[f] ?? 0,
          itemStyle: { color: f === n - 1 && uneven ? '#D9483B' : r.colour, opacity: f === n - 1 ? 1 : 0.5 },
        })),
        ...(k === 0 && n > 0
          ? {
              markLine: {
                silent: true,
                symbol: 'none',
                lineStyle: { color: ink, type: 'dashed', width: 1 },
                label: {
                  show: true,
                  position: 'end',
                  fontSize: 11,
                  color: uneven ? (dusk ? '#FF9C92' : '#A8261B') : muted,
                  formatter:
                    uneven && Number.isFinite(ratio)
                      ? `step × ${ratio < 10 ? ratio.toFixed(1) : ratio.toFixed(0)} at the seam`
                      : 'seam',
                },
                data: [{ xAxis: half }],
              },
            }
          : {}),
      })),
    });
    const observer = new ResizeObserver(() => chart.resize());
    observer.observe(holder.current!);
    return () => {
      observer.disconnect();
      chart.dispose();
    };
  }, [ribbons, ratio, resolvedTheme]);
  return <Box ref={holder} h="128px" data-testid="steps-chart" />;
}
