'use client';

import { CustomChart, LineChart } from 'echarts/charts';
import { GridComponent, MarkAreaComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import { init, use as register, type ComposeOption } from 'echarts/core';
import type { CustomSeriesOption, LineSeriesOption } from 'echarts/charts';
import type {
  GridComponentOption,
  MarkAreaComponentOption,
  MarkLineComponentOption,
  TooltipComponentOption,
} from 'echarts/components';
import { SVGRenderer } from 'echarts/renderers';
import { useEffect, useRef } from 'react';
import type { LengthSeries, ThroughTime } from '@/core/findings/through-time';
import type { Formatter } from '@/formats/formatter';
import { useFormat, usePreferences } from '../shell/preferences-context';

register([LineChart, CustomChart, GridComponent, TooltipComponent, MarkAreaComponent, MarkLineComponent, SVGRenderer]);

type Option = ComposeOption<
  | LineSeriesOption
  | CustomSeriesOption
  | GridComponentOption
  | TooltipComponentOption
  | MarkAreaComponentOption
  | MarkLineComponentOption
>;

/** One dimension through the rounds: its ± as bars, the limit as a band, what was done as upright lines. */
export function TimeChart({
  series,
  time,
  onRound,
}: {
  series: LengthSeries;
  time: ThroughTime;
  onRound: (roundId: string) => void;
}) {
  const format = useFormat();
  const { preferences } = usePreferences();
  const box = useRef<HTMLDivElement>(null);
  const { dimension, values } = series;
  useEffect(() => {
    const chart = init(box.current, null, { renderer: 'svg' });
    const style = getComputedStyle(document.documentElement);
    const colour = (name: string) => style.getPropertyValue(name).trim();
    chart.setOption(optionOf(series, time, format, colour));
    chart.on('click', ({ seriesType, dataIndex }) => {
      const value = seriesType === 'line' && values[dataIndex ?? -1];
      if (value) onRound(value.roundId);
    });
    const resize = new ResizeObserver(() => chart.resize());
    resize.observe(box.current!);
    return () => {
      resize.disconnect();
      chart.dispose();
    };
  }, [series, time, format, values, onRound, preferences.sheet]);
  const round = (id: string) => time.rounds.find((each) => each.id === id)!;
  return (
    <figure data-series={dimension.code}>
      <figcaption className="flex flex-wrap items-baseline gap-x-3">
        <span className="font-cond text-lg">{dimension.code}</span>
        <span className="text-soft">{format.name(dimension.name)}</span>
        <span className="text-sm text-soft">
          {values
            .map(
              ({ roundId, value, sd }) =>
                `${round(roundId).number}: ${format.length(value)} ${format.plusMinus(2 * sd)}`,
            )
            .join(' · ')}{' '}
          {format.unit}
        </span>
      </figcaption>
      <div ref={box} className="h-56 w-full" role="img" aria-label={`${dimension.code} through the rounds`} />
    </figure>
  );
}

function optionOf(
  { values, reference, limit }: LengthSeries,
  time: ThroughTime,
  format: Formatter,
  colour: (name: string) => string,
): Option {
  const round = (id: string) => time.rounds.find((each) => each.id === id)!;
  const at = (id: string) => Date.parse(round(id).at);
  const [ink, soft, rule, faint] = ['--ink', '--soft', '--rule', '--faint'].map(colour) as [
    string,
    string,
    string,
    string,
  ];
  const around = [
    ...values.flatMap(({ value, sd }) => [value - 2 * sd, value + 2 * sd]),
    ...(reference !== undefined && limit !== undefined ? [reference - limit, reference + limit] : []),
  ];
  const [low, high] = [Math.min(...around), Math.max(...around)];
  const room = Math.max(0.5, (high - low) * 0.12);
  const times = [...time.rounds.map((each) => Date.parse(each.at)), ...time.events.map((each) => Date.parse(each.at))];
  const width = Math.max(3_600_000, Math.max(...times) - Math.min(...times));
  return {
    animation: false,
    textStyle: { fontFamily: 'IBM Plex Sans Condensed', color: ink, fontSize: 13 },
    grid: { left: 70, right: 20, top: 30, bottom: 28 },
    tooltip: {
      trigger: 'item',
      formatter: (item) => tooltipText(item as { seriesType?: string; dataIndex: number }, values, round, format),
    },
    xAxis: {
      type: 'time',
      min: Math.min(...times) - width * 0.06,
      max: Math.max(...times) + width * 0.06,
      axisLine: { lineStyle: { color: soft } },
      axisLabel: { color: soft, hideOverlap: true },
      splitLine: { show: false },
    },
    yAxis: {
      type: 'value',
      min: low - room,
      max: high + room,
      // The ends lie where the band and the bars need them, not on round figures.
      axisLabel: {
        color: soft,
        showMinLabel: false,
        showMaxLabel: false,
        formatter: (value: number) => format.length(value),
      },
      splitLine: { lineStyle: { color: faint } },
    },
    series: [
      {
        type: 'line',
        data: values.map(({ roundId, value }) => [at(roundId), value]),
        symbol: 'circle',
        symbolSize: 11,
        cursor: 'pointer',
        lineStyle: { color: ink, width: 1.6 },
        itemStyle: { color: colour('--sheet'), borderColor: ink, borderWidth: 2 },
        label: {
          show: true,
          position: 'top',
          color: ink,
          formatter: ({ dataIndex }) => `round ${round(values[dataIndex]!.roundId).number}`,
        },
        ...(reference !== undefined && limit !== undefined
          ? {
              markArea: {
                silent: true,
                itemStyle: { color: faint, opacity: 0.75 },
                data: [[{ yAxis: reference - limit }, { yAxis: reference + limit }]],
              },
            }
          : {}),
        markLine: {
          symbol: 'none',
          silent: true,
          label: { color: soft, fontSize: 11 },
          data: [
            ...(reference !== undefined
              ? [
                  {
                    yAxis: reference,
                    lineStyle: { color: soft, type: 'dashed' as const },
                    label: { formatter: 'reference', position: 'insideStartTop' as const },
                  },
                ]
              : []),
            ...grouped(time.events, format).map(({ at: when, text }) => ({
              xAxis: when,
              lineStyle: { color: rule, type: 'solid' as const },
              label: { formatter: text, position: 'end' as const, rotate: 0 },
            })),
          ],
        },
      },
      whiskers(
        values.map(({ roundId, value, sd }) => [at(roundId), value - 2 * sd, value + 2 * sd]),
        ink,
      ),
    ],
  };
}

/** ± two standard deviations of each value: instant, lower end, upper end. */
const whiskers = (data: readonly (readonly [number, number, number])[], ink: string): CustomSeriesOption => ({
  type: 'custom',
  silent: true,
  data: data.map((each) => [...each]),
  renderItem: (_, api) => {
    const [x, bottom] = api.coord([api.value(0), api.value(1)]) as [number, number];
    const [, top] = api.coord([api.value(0), api.value(2)]) as [number, number];
    const line = (x1: number, y1: number, x2: number, y2: number) => ({
      type: 'line' as const,
      shape: { x1, y1, x2, y2 },
      style: { stroke: ink, lineWidth: 1.6 },
    });
    return {
      type: 'group',
      children: [line(x, bottom, x, top), line(x - 6, bottom, x + 6, bottom), line(x - 6, top, x + 6, top)],
    };
  },
});

/** Events of one day share a line. */
function grouped(events: ThroughTime['events'], time: Formatter): { at: number; text: string }[] {
  const days = new Map<string, { at: number; kinds: Set<string> }>();
  for (const { at, kind } of events) {
    const day = days.get(time.date(at)) ?? { at: Date.parse(at), kinds: new Set<string>() };
    day.kinds.add(kind);
    days.set(time.date(at), day);
  }
  return [...days.values()].map(({ at, kinds }) => ({ at, text: [...kinds].join(', ') }));
}

function tooltipText(
  { seriesType, dataIndex }: { seriesType?: string; dataIndex: number },
  values: LengthSeries['values'],
  round: (id: string) => ThroughTime['rounds'][number],
  format: Formatter,
): string {
  const value = seriesType === 'line' ? values[dataIndex] : undefined;
  if (!value) return '';
  const { number, name } = round(value.roundId);
  return `${number}. ${name}: ${format.length(value.value)} ${format.plusMinus(2 * value.sd)} ${format.unit}<br>click to see its tape`;
}
