import { describe, expect, test } from '@jest/globals';
import { compileScene, createFrame, programmeBoard, sampleFrame, type Layer, type Scene } from '@wexikine/core';
import { ghostsAround, keepMoving } from './ghosts';

const board = programmeBoard();
const [like] = board.layers;
const card = (id: string, more: Partial<Layer> = {}): Layer => ({
  ...like,
  id,
  name: id,
  kind: 'card',
  parent: null,
  locked: false,
  hidden: false,
  span: { in: 0, out: 1_000 },
  source: { type: 'rectangle' },
  tracks: {},
  ...more,
});
const moving = { 'position.x': [0, 1_000].map((at) => ({ at, value: at, ease: { type: 'linear' as const } })) };

/** Names of the layers that a ghost at a time leaves on, with what is selected. */
function left(layers: readonly Layer[], at: number, ...ids: string[]): readonly string[] | null {
  const scene: Scene = { ...board, layers: [...layers], runs: [], cues: [] };
  const compiled = compileScene(scene);
  const [ghost, now] = [createFrame(compiled), createFrame(compiled)];
  sampleFrame(compiled, 100, now);
  sampleFrame(compiled, at, ghost);
  const isAny = keepMoving(compiled, ghost, now, new Set(ids));
  return isAny ? layers.filter((_, i) => ghost.live[i] === 1).map(({ id }) => id) : null;
}

describe('ghosts', () => {
  test('stand before and after the playhead, the faintest first, and never outside the scene', () => {
    const ghosts = ghostsAround(100, 10, 125);
    expect(ghosts.map(({ at }) => at)).toEqual([70, 80, 120, 90, 110]);
    const strengths = ghosts.map(({ strength }) => strength);
    expect([...strengths].sort((a, b) => a - b)).toEqual(strengths);
    expect(strengths.every((strength) => strength > 0 && strength < 1)).toBe(true);
    expect(ghostsAround(0, 10, 5)).toEqual([]);
  });

  test('are of what is selected and looks otherwise then; what stands still has none', () => {
    const layers = [card('a', { tracks: moving }), card('b', { tracks: moving }), card('still')];
    expect(left(layers, 200, 'a', 'still')).toEqual(['a']);
    expect(left(layers, 200, 'still')).toBeNull();
    expect(left(layers, 100, 'a')).toBeNull();
    expect(left(layers, 200)).toBeNull();
  });

  test('of a group that moves are all its parts; of a part the groups around stay on', () => {
    const group = card('g', { kind: 'group', source: { type: 'none' }, tracks: moving });
    const parts = [card('p', { parent: 'g' }), card('q', { parent: 'g' })];
    expect(left([...parts, group, card('other', { tracks: moving })], 200, 'g')).toEqual(['p', 'q', 'g']);
    expect(left([group, ...parts], 200, 'q')).toEqual(['g', 'q']);
  });

  test('that are not on at their time are not drawn', () => {
    expect(left([card('a', { tracks: moving, span: { in: 0, out: 150 } })], 200, 'a')).toBeNull();
  });
});
