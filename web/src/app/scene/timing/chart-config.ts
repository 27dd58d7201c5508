import { formatShort, TICKS_PER_SECOND, toFrameGrid, type Busy, type Rate, type Ticks } from '@wexikine/core';
import type { ScaleOptions } from 'chart.js';
import type { BarConfiguration, LineConfiguration, RoleOf } from './chart-view';
import type { MotionSpan } from './spans';

/** Rows that have their names beside them at most. */
const MOST_NAMES = 24;
const NAME_LETTERS = 18;
/** One layer alone has a bar and no wall, px. */
const THICKEST = 18;
const FONT = { family: 'Spline Sans Variable, Spline Sans, sans-serif', size: 11 };

/** Seconds between names of times that are worth having, and how many names there are at most. */
const STEPS = [0.2, 0.5, 1, 2, 5, 10, 30, 60, 120, 300];
const MOST_TIMES = 6;

/** A step between names of times over a length, ticks. */
export function timeStep(length: Ticks, rate: Rate): Ticks {
  const seconds = length / TICKS_PER_SECOND;
  const step = STEPS.find((one) => seconds / one <= MOST_TIMES) ?? seconds / MOST_TIMES;
  return toFrameGrid(step * TICKS_PER_SECOND, rate);
}

/** The time that charts show: to a little after the last that moves. */
export function shownLength(spans: readonly MotionSpan[], length: Ticks, rate: Rate): Ticks {
  const last = Math.max(0, ...spans.flatMap(({ now, after }) => [now?.[1] ?? 0, after?.[1] ?? 0]));
  const step = timeStep(last, rate);
  return Math.min(length, Math.max(step, Math.ceil((last * 1.04) / step) * step));
}

function timeScale(role: RoleOf, { rate, length }: ChartTime): ScaleOptions<'linear'> {
  return {
    type: 'linear',
    min: 0,
    max: length,
    grid: { color: role('line') },
    border: { display: false },
    // Names stand on round times, which the library would only do where they fill the length evenly.
    afterBuildTicks: (axis) => {
      const step = timeStep(length, rate);
      axis.ticks = Array.from({ length: Math.floor(length / step + 1e-9) + 1 }, (_, i) => ({ value: i * step }));
    },
    ticks: {
      color: role('ink-soft'),
      font: FONT,
      maxRotation: 0,
      callback: (value) => formatShort(toFrameGrid(Number(value), rate), rate),
    },
  } as ScaleOptions<'linear'>;
}

/** The time that is shown, from 0, and its rate. */
interface ChartTime {
  readonly rate: Rate;
  readonly length: Ticks;
}

/** Begin and end of each layer's motion: ink as it stands, saffron with the dry run. */
export function spansChart(
  spans: readonly MotionSpan[],
  time: ChartTime,
  pick: (layer: string, at: Ticks) => void,
): (role: RoleOf) => BarConfiguration {
  const short = (name: string): string => (name.length > NAME_LETTERS ? `${name.slice(0, NAME_LETTERS - 1)}…` : name);
  const hasAfter = spans.some(({ after }) => after !== null);
  const bars = (of: (span: MotionSpan) => readonly [Ticks, Ticks] | null): ([number, number] | null)[] =>
    spans.map((span) => {
      const [from, to] = of(span) ?? [];
      return from === undefined || to === undefined ? null : [from, to];
    });
  // A bar that is alone stands beside its name, not where the second of two would.
  const look = { borderRadius: 2, maxBarThickness: THICKEST, categoryPercentage: 0.8, skipNull: true };
  return (role) => ({
    type: 'bar',
    data: {
      labels: spans.map(({ name }) => short(name)),
      datasets: [
        {
          label: 'now',
          data: bars(({ now }) => now),
          backgroundColor: role(hasAfter ? 'ink-faint' : 'pine'),
          ...look,
        },
        ...(hasAfter
          ? [{ label: 'after', data: bars(({ after }) => after), backgroundColor: role('saffron'), ...look }]
          : []),
      ],
    },
    options: {
      indexAxis: 'y',
      animation: false,
      maintainAspectRatio: false,
      onClick: (_, elements) => {
        const [hit] = elements;
        const span = hit && spans[hit.index];
        if (span) pick(span.layer, (hit.datasetIndex === 1 ? span.after : span.now)?.[0] ?? 0);
      },
      scales: {
        x: timeScale(role, time),
        y: {
          grid: { display: false },
          border: { display: false },
          ticks: { display: spans.length <= MOST_NAMES, autoSkip: false, color: role('ink-soft'), font: FONT },
        },
      },
      plugins: {
        legend: { display: false },
        tooltip: {
          callbacks: {
            title: (items) => spans[items[0].dataIndex]?.name ?? '',
            label: ({ dataset, raw }) => {
              const [from, to] = raw as [number, number];
              return `${dataset.label}: ${formatShort(from, time.rate)} to ${formatShort(to, time.rate)}`;
            },
          },
        },
      },
    },
  });
}

/** Points of a line at most: closer together, ups and downs of a few frames each would fill the chart. */
const MOST_POINTS = 72;

/** The line of what happens within a time; where it has too many steps, the most of several that follow each other. */
export function busyLine(busy: Busy, of: 'moving' | 'speed', length: Ticks): { x: number; y: number }[] {
  const shown = Math.min(busy[of].length, Math.ceil(length / busy.step));
  const together = Math.max(1, Math.ceil(shown / MOST_POINTS));
  return Array.from({ length: Math.ceil(busy[of].length / together) }, (_, i) => ({
    x: busy.from + (i + 0.5) * together * busy.step,
    y: Math.max(...busy[of].subarray(i * together, (i + 1) * together)),
  }));
}

/** Layers that move and their speeds together over time; with a dry run as it stands behind. */
export function busyChart(
  now: Busy,
  after: Busy | null,
  time: ChartTime,
  pick: (at: Ticks) => void,
): (role: RoleOf) => LineConfiguration {
  return (role) => {
    const line = (label: string, busy: Busy, of: 'moving' | 'speed', colour: string, dash: number[]) => ({
      label,
      data: busyLine(busy, of, time.length),
      yAxisID: of,
      borderColor: role(colour),
      backgroundColor: `color-mix(in srgb, ${role(colour)} 16%, transparent)`,
      borderWidth: 1.6,
      borderDash: dash,
      pointRadius: 0,
      stepped: of === 'moving' ? ('middle' as const) : (false as const),
      fill: of === 'moving' && busy === (after ?? now),
    });
    const colour = after ? 'saffron' : 'pine';
    const axis = (position: 'left' | 'right', text: string): ScaleOptions<'linear'> =>
      ({
        type: 'linear',
        position,
        beginAtZero: true,
        grid: { display: position === 'left', color: role('line') },
        border: { display: false },
        title: { display: true, text, color: role('ink-soft'), font: FONT },
        ticks: { color: role('ink-soft'), font: FONT, maxTicksLimit: 4, precision: 0 },
      }) as ScaleOptions<'linear'>;
    return {
      type: 'line',
      data: {
        datasets: [
          line(after ? 'layers, after' : 'layers that move', after ?? now, 'moving', colour, []),
          line(after ? 'px/s, after' : 'px/s together', after ?? now, 'speed', colour, [4, 3]),
          ...(after ? [line('layers, now', now, 'moving', 'ink-faint', [])] : []),
        ],
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        interaction: { mode: 'index', intersect: false },
        onClick: (event, _, chart) => {
          const at = chart.scales['x'].getValueForPixel(event.x ?? 0);
          if (at !== undefined) pick(at);
        },
        scales: {
          x: timeScale(role, time),
          moving: axis('left', 'layers'),
          speed: axis('right', 'px/s, dashed'),
        },
        plugins: {
          legend: { display: false },
          tooltip: {
            callbacks: {
              title: (items) => formatShort(Math.round(items[0].parsed.x ?? 0), time.rate),
              label: ({ dataset, parsed }) => `${dataset.label}: ${Math.round(parsed.y ?? 0)}`,
            },
          },
        },
      },
    };
  };
}
