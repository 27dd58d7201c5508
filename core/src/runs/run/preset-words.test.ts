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
