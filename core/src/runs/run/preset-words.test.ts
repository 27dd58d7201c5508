import { expect, test } from '@jest/globals';
import { frameTicks } from '../../basics/time';
import { createShelf } from '../../library/library';
import { STARTER_LIBRARY } from '../../library/starter';
import { createRecipe, type PresetRecipe } from '../../scene/recipe';
import { card, PAL, sceneOf } from '../../testing/scenes';
import { presetParts } from './preset-words';

const facts = { scene: sceneOf([card('a')]), shelf: createShelf(STARTER_LIBRARY), count: 1 };
const at = (frames: number): number => frames * frameTicks(PAL);
const said = (recipe: Partial<PresetRecipe>, finish: number | null): string => {
  const whole = { ...createRecipe('bring-in', 'rise-and-settle', { by: 'rule', kind: 'card' }), ...recipe };
  const solved = { start: at(5), gap: at(4), length: at(20), finish };
  return presetParts(whole, { ...facts, solved })
    .map(({ text }) => text)
    .join('');
};

test('entrances go from in points, exits to out points, and both from a time that is given', () => {
  const out = { operation: 'send-out', preset: { id: 'fade-out' } } as const;
  const byLayer = { start: { by: 'layer' } } as const;
  const byTime = { start: { by: 'time', at: '2:00' } } as const;
  expect(said(byLayer, null)).toContain(', from each in point');
  expect(said(byTime, null)).toContain(', from 2:00');
  expect(said({ ...out, ...byLayer }, null)).toContain(', to end at each out point');
  expect(said({ ...out, ...byTime }, null)).toContain(', from 2:00');
});

test('what follows from the rest is said once it is known', () => {
  const recipe = createRecipe('bring-in', 'rise-and-settle', { by: 'rule', kind: 'card' });
  const wanted: PresetRecipe = {
    ...recipe,
    start: { by: 'finish', at: '3:00' },
    spacing: { by: 'gap', gap: '4f' },
  };
  const words = (solved?: { start: number; gap: number; length: number; finish: number }): string =>
    presetParts(wanted, { ...facts, ...(solved ? { solved } : {}) })
      .map(({ text }) => text)
      .join('');
  const known = words({ start: at(35), gap: at(4), length: at(20), finish: at(75) });
  expect(known).toContain('1:10');
  for (const text of [words(), known]) expect(text).not.toMatch(/null|NaN|undefined/);
  expect(words()).not.toContain('1:10');
});

test('a preset is said to be mirrored where it is', () => {
  expect(said({}, null)).toContain('Rise & settle on ');
  expect(said({ preset: { id: 'rise-and-settle', mirrored: true } }, null)).toContain('Rise & settle, mirrored, on ');
});

test('the finish is what follows where it is known, and what is wanted where it is given', () => {
  expect(said({}, null)).not.toContain('the last');
  expect(said({}, at(50))).toContain(', the last done at 2:00');
  const finish = { by: 'finish', at: '3:00' } as const;
  for (const given of [{ start: finish }, { spacing: finish }, { length: finish }])
    expect(said(given, at(75))).toContain(', such that the last is done at 3:00');
});
