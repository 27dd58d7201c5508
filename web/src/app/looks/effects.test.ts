import { describe, expect, test } from '@jest/globals';
import { apply, leftOut, programmeBoard, sceneSchema, type Edit, type Layer } from '@wexikine/core';
import { EFFECTS, hasEffect, withEffect, withoutEffect } from './effects';

const board = programmeBoard();
const plain = board.layers.find(({ id }) => id === 'moon') as Layer;

describe.each(EFFECTS.map((effect) => [effect.label, effect] as const))('%s', (_label, effect) => {
  const added: Layer = { ...plain, ...withEffect(plain, effect) };

  test('is added as something that can be held and seen, and taken away without a trace', () => {
    expect(hasEffect(plain, effect)).toBe(false);
    expect(hasEffect(added, effect)).toBe(true);
    const edits: Edit[] = [{ type: 'set-layer', layer: plain.id, fields: withEffect(plain, effect) }];
    const result = apply(board, edits);
    expect(result.ok && sceneSchema.safeParse(result.scene).success).toBe(true);
    expect({ ...added, ...withoutEffect(added, effect) }).toEqual(plain);
  });

  test('is what it is already where it is added once more', () => {
    const [channel] = effect.channels;
    const own: Layer = channel ? { ...added, rest: { ...added.rest, [channel.id]: 77 } } : added;
    expect(withEffect(own, effect)).toEqual({ look: own.look, rest: own.rest });
  });
});

test('the export says which effects a page cannot carry', () => {
  const said = (id: string, layer: Layer): string | null => {
    const effect = EFFECTS.find((one) => one.id === id);
    return effect ? leftOut({ layers: [{ ...layer, ...withEffect(layer, effect) }] }) : 'unknown';
  };
  const word = board.layers.find(({ source }) => source.type === 'text') as Layer;
  expect(said('border', plain)).toBeNull();
  expect(said('shadow', word)).toBeNull();
  expect(said('border', word)).toContain('borders of paths and words');
  expect(said('streak', plain)).toContain('streaks (one layer)');
  expect(said('motion-blur', plain)).toContain('motion blur (one layer)');
});
