import { expect, test } from '@jest/globals';
import { easingText } from '../../basics/easing';
import { frameTicks } from '../../basics/time';
import { tracksOf, type Key } from '../../scene/layer';
import { ADJUST_TYPES, createStep, type AdjustRecipe, type KeyRule } from '../../scene/recipe';
import { adjust } from '../../testing/adjusting';
import { edited, planOn } from '../../testing/planning';
import { card, inFrames, key, PAL, sceneOf } from '../../testing/scenes';
import { describeFinding } from '../finding';

/**
 * What every step makes of the same keys, as it was when laws and the screens said that it is right: what comes out
 * otherwise is to be understood before it is taken over with `npm run unit -- whole-steps -u`.
 */
const FRAME = frameTicks(PAL);
const soft = { type: 'bezier', x1: 0.4, y1: 0, x2: 0.2, y2: 1 } as const;
const free = { type: 'handles', leave: { time: 0.3, value: 12 }, arrive: { time: 0.4, value: -6 } } as const;

const SCENE = {
  ...sceneOf([
    card('a', {
      rest: { 'position.x': 100, 'size.x': 40, 'size.y': 40 },
      tracks: {
        'position.x': [key(0, 20, soft), key(10, 160), key(14, 90, free), key(30, 100)],
        opacity: [key(0, 0, { type: 'hold' }), key(10.4, 1)],
      },
    }),
    card('b', {
      rest: { 'position.x': 300, 'size.x': 40, 'size.y': 40 },
      tracks: { 'position.x': [key(40, 300), key(50, 500, { type: 'steps', count: 4, jump: 'end' }), key(60, 300)] },
    }),
  ]),
  cues: [
    { id: 'one', name: 'One', at: 12 * FRAME },
    { id: 'two', name: 'Two', at: 48 * FRAME },
  ],
};

const rounded = (value: number): number => Number(value.toFixed(3));
const keyText = ({ at, value, ease }: Key): string =>
  `${rounded(inFrames(at))}: ${rounded(value)} ${easingText(ease) ?? JSON.stringify(ease)}`;

function linesOf(recipe: AdjustRecipe): string[] {
  const planned = planOn(SCENE, recipe);
  const after = edited(SCENE, planned.edits);
  return [
    ...planned.findings.map((finding) => `! ${describeFinding(finding, SCENE)}`),
    ...after.layers.flatMap((layer) =>
      tracksOf(layer).map(([channel, keys]) => `${layer.id} ${channel} ${keys.slice(0, 14).map(keyText).join(', ')}`),
    ),
    JSON.stringify(planned.counts),
  ];
}

test.each(ADJUST_TYPES)('%s, as it begins', (type) => {
  expect(linesOf(adjust({ ...createStep(type, []), id: 's1' }))).toMatchSnapshot();
});

const PICKS: Readonly<Record<string, Partial<KeyRule>>> = {
  'the first keys': { which: 'first' },
  'the last keys': { which: 'last' },
  'the keys in between': { which: 'inner' },
  'the second keys': { which: 'nth', nth: 2 },
  'keys between frames': { which: 'all', offGrid: true },
  'keys from one value to another': { which: 'all', low: 90, high: 300 },
  'keys of a time': { which: 'all', from: '10f', to: '50f' },
};

test.each(Object.entries(PICKS))('%s, later by seven frames', (_, rule) => {
  expect(linesOf(adjust({ type: 'shift' }, { by: '7f' }, rule))).toMatchSnapshot();
});
