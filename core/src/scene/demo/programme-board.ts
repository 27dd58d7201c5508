import type { Layer } from '../layer';
import type { Scene } from '../scene';
import { ticksFromSeconds } from '../../basics/time';
import { randomAt } from '../../basics/random';
import { demoScene, layer, text } from './builder';

const PROGRAMME = [
  ['Moonrise walk', '19:15'],
  ['First light: telescopes', '19:45'],
  ['Dark adaptation', '20:15'],
  ['The Kettle & the Heron', '20:45'],
  ['Meteor count', '21:15'],
  ['Tide and moon', '21:40'],
  ['Supper by lantern', '22:10'],
  ['Radio sky', '22:45'],
  ['Long exposure', '23:20'],
  ['Quiet hour', '0:00'],
  ['Dawn planets', '4:50'],
  ['Closing bell', '5:30'],
] as const;

const ROW = { x: 120, top: 250, width: 1_080, height: 48, step: 58 };
const NAME_STYLE = { font: 'Spline Sans', weight: 500, size: 26, align: 'left' } as const;
const TIME_STYLE = { font: 'Spline Sans Mono', weight: 500, size: 26, align: 'right' } as const;

/** One row: a group of a card, the event's name and its time. */
function boardRow(name: string, time: string, index: number): Layer[] {
  const id = `row-${String(index + 1).padStart(2, '0')}`;
  const middle = { x: ROW.x + ROW.width / 2, y: ROW.top + ROW.height / 2 + index * ROW.step };
  const { width, height } = ROW;
  return [
    layer(id, name, 'group', { ...middle, width, height }, { tags: ['row'], data: { time } }),
    layer(
      `${id}-card`,
      `${name}, card`,
      'card',
      { x: width / 2, y: height / 2, width, height },
      { parent: id, look: { fill: '#33476b' }, rest: { corner: 10, opacity: 0.72 } },
    ),
    layer(
      `${id}-name`,
      `${name}, name`,
      'word',
      { x: 24 + 360, y: height / 2, width: 720, height },
      { parent: id, look: { fill: '#f4ecdc' }, source: text(name, NAME_STYLE) },
    ),
    layer(
      `${id}-time`,
      `${name}, time`,
      'word',
      { x: width - 24 - 90, y: height / 2, width: 180, height },
      { parent: id, look: { fill: '#f3c98b' }, source: text(time, TIME_STYLE) },
    ),
  ];
}

function skyDots(): Layer[] {
  return Array.from({ length: 24 }, (_, i) => {
    const x = 60 + randomAt(7, i) * 1_800;
    const y = 30 + randomAt(8, i) * 640;
    const size = 2 + randomAt(9, i) * 4;
    return layer(
      `dot-${i + 1}`,
      `Far star ${i + 1}`,
      'card',
      { x, y, width: size, height: size },
      {
        tags: ['far star'],
        look: { fill: '#e8e3cf' },
        source: { type: 'ellipse' },
        rest: { opacity: 0.4 + randomAt(10, i) * 0.5 },
        parent: 'sky-dots',
      },
    );
  });
}

const FRAME = { x: 960, y: 540, width: 1_920, height: 1_080 };

/** Programme board: twelve timetable rows under a title, over a night sky with hills. */
export function programmeBoard(): Scene {
  const layers: Layer[] = [
    layer('sky', 'Night sky', 'card', FRAME, {
      locked: true,
      look: { fill: { from: '#0b1230', to: '#2b4a6b', angle: 0 } },
    }),
    layer('sky-dots', 'Far stars', 'group', FRAME, { locked: true }),
    ...skyDots(),
    layer(
      'moon',
      'Moon',
      'card',
      { x: 1_560, y: 280, width: 240, height: 240 },
      {
        source: { type: 'ellipse' },
        look: { fill: '#ecd9b4' },
        tags: ['sky'],
      },
    ),
    layer(
      'title',
      'Title: Star party',
      'word',
      { x: 480, y: 150, width: 720, height: 130 },
      {
        look: { fill: '#f4dfb8' },
        tags: ['title'],
        source: text('Star party', { font: 'Bricolage Grotesque', weight: 700, size: 104, align: 'left' }),
      },
    ),
    ...PROGRAMME.flatMap(([name, time], index) => boardRow(name, time, index)),
    layer(
      'hill-far',
      'Marsh grass A',
      'card',
      { x: 960, y: 1_000, width: 1_920, height: 160 },
      {
        source: { type: 'path', d: 'M0 60 C15 20 28 40 42 30 C60 12 78 4 100 34 L100 100 L0 100 Z' },
        look: { fill: '#16332f' },
        tags: ['marsh'],
      },
    ),
    layer(
      'hill-near',
      'Marsh grass B',
      'card',
      { x: 960, y: 1_030, width: 1_920, height: 100 },
      {
        source: { type: 'path', d: 'M0 30 C20 5 40 55 60 30 C75 12 88 40 100 10 L100 100 L0 100 Z' },
        look: { fill: '#0f2724' },
        tags: ['marsh'],
      },
    ),
    layer(
      'footer',
      'Footer: gates open 19:00',
      'word',
      { x: 1_560, y: 1_020, width: 560, height: 50 },
      {
        look: { fill: '#d9c9a5' },
        source: text('Gates open 19:00', { font: 'Spline Sans', weight: 500, size: 30, align: 'right' }),
      },
    ),
  ];
  return demoScene({
    id: 'programme-board',
    name: 'Programme board',
    rate: { num: 25, den: 1 },
    length: ticksFromSeconds(6),
    layers,
  });
}
