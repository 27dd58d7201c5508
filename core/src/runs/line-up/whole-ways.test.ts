import { expect, test } from '@jest/globals';
import { frameTicks } from '../../basics/time';
import { tracksOf } from '../../scene/layer';
import { createLineUp, type LineUpRecipe } from '../../scene/recipe';
import { applied, edited, planOn } from '../../testing/planning';
import { card, inFrames, key, PAL, sceneOf } from '../../testing/scenes';
import { describeFinding } from '../finding';

/**
 * What every way of lining up makes of the same layers, as it was when laws and the screens said that it is right: what
 * comes out otherwise is to be understood before it is taken over with `npm run unit -- whole-ways -u`.
 */
const FRAME = frameTicks(PAL);
const span = (first: number, end: number) => ({ span: { in: first * FRAME, out: end * FRAME } });
const CUES = [
  { id: 'one', name: 'One', at: 30 * FRAME },
  { id: 'two', name: 'Two', at: 80 * FRAME },
];

/** Three cards that fade in, one with keys by hand besides, one of them short, and one without any keys. */
const SCENE = {
  ...applied(
    sceneOf([
      card('a', { ...span(0, 100), tracks: { rotation: [key(40, 0), key(60, 90)] } }),
      card('b', span(20, 60)),
      card('c', span(50, 250)),
    ]),
    { spacing: { by: 'gap', gap: '0f' } },
  ),
  cues: CUES,
};

const rounded = (value: number): number => Number(value.toFixed(3));

function linesOf(more: Partial<LineUpRecipe>): string[] {
  const planned = planOn(SCENE, { ...createLineUp({ by: 'rule', kind: 'card' }), ...more });
  const after = edited(SCENE, planned.edits);
  return [
    ...planned.findings.map((finding) => `! ${describeFinding(finding, SCENE)}`),
    ...after.layers.map((layer) => {
      const keys = tracksOf(layer).map(
        ([channel, track]) =>
          `${channel} ${track.map((one) => `${rounded(inFrames(one.at))}: ${rounded(one.value)}`).join(', ')}`,
      );
      return `${layer.id} ${rounded(inFrames(layer.span.in))} to ${rounded(inFrames(layer.span.out))}; ${keys.join('; ')}`;
    }),
    JSON.stringify(planned.counts),
  ];
}

const WAYS: Readonly<Record<string, Partial<LineUpRecipe>>> = {
  'begin at a time': { way: { by: 'begin', at: { by: 'time', at: '10f' } } },
  'begin at a cue': { way: { by: 'begin', at: { by: 'cue', cue: 'One' } } },
  'begin with the latest': { way: { by: 'begin', at: { by: 'latest' } } },
  'begin with the earliest': { way: { by: 'begin', at: { by: 'earliest' } } },
  'end with the scene': { way: { by: 'end', at: { by: 'scene' } } },
  'end with the latest, all stretched': { way: { by: 'end', at: { by: 'latest' } }, parts: 'stretch' },
  'end with the earliest': { way: { by: 'end', at: { by: 'earliest' } } },
  'one after the other': { way: { by: 'butt', gap: '0f' } },
  'one after the other, overlapping': { way: { by: 'butt', gap: '-10f' } },
  'each to the next': { way: { by: 'relay', overlap: '0f' } },
  'each beyond the next': { way: { by: 'relay', overlap: '5f' } },
  'of one length': { way: { by: 'length', length: '2s' } },
  'of a length too short for entrance and exit': { way: { by: 'length', length: '5f' } },
  'of a length too short, squeezed': { way: { by: 'length', length: '5f' }, squeeze: true },
  'slid to a time': { way: { by: 'slide', to: { by: 'time', at: '1s' }, gap: '5f' } },
  'in two rows': { way: { by: 'rows', rows: 2, from: { by: 'time', at: '0' }, apart: '5f', hold: '40f' } },
  'the last first': { way: { by: 'butt', gap: '3f' }, order: { by: 'layered', reversed: true } },
};

test.each(Object.entries(WAYS))('%s', (_, more) => expect(linesOf(more)).toMatchSnapshot());
