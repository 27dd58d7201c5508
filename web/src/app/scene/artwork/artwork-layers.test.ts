import { expect, test } from '@jest/globals';
import { apply, programmeBoard, sceneSchema, TICKS_PER_SECOND } from '@wexikine/core';
import { broughtWords, pictureLayer, placesFor } from './artwork-layers';
import { canSplit, countLayers, treeRows, wholeAtLevel } from './drawing-tree';
import type { BroughtFile, DrawingTree } from './messages';

const scene = { ...programmeBoard(), width: 1920, height: 1080 };
const picture = (name: string, width: number, height: number): Extract<BroughtFile, { type: 'picture' }> => ({
  type: 'picture',
  name,
  href: `files/${'0a'.repeat(32)}.webp`,
  width,
  height,
});
let made = 0;
const newId = (): string => `p-${++made}`;

test('one picture stands where it was dropped, whole, and not larger than it is', () => {
  const small = picture('a', 300, 200);
  expect(placesFor(scene, [small], { x: 100, y: 50 })).toEqual([{ at: { x: 100, y: 50 }, scale: 1 }]);
  const [place] = placesFor(scene, [picture('b', 6000, 2000)], null);
  const { rest } = pictureLayer(scene, picture('b', 6000, 2000), place, newId);
  expect([rest['position.x'], rest['size.x'], rest['size.y']]).toEqual([960, 1152, 384]);
});

test('several stand in a grid, none over another, and the scene holds them', () => {
  const pictures = Array.from({ length: 7 }, (_, i) => picture(`n${i}`, 400, 900));
  const places = placesFor(scene, pictures, null);
  const layers = pictures.map((one, i) => pictureLayer(scene, one, places[i], newId));
  const boxes = layers.map(({ rest }) => [
    rest['position.x'] ?? 0,
    rest['position.y'] ?? 0,
    rest['size.x'] ?? 0,
    rest['size.y'] ?? 0,
  ]);
  boxes.forEach(([x, y, width, height], i) => {
    expect(x - width / 2).toBeGreaterThanOrEqual(0);
    expect(y + height / 2).toBeLessThanOrEqual(1080);
    boxes.slice(i + 1).forEach(([otherX, otherY, otherWidth, otherHeight]) => {
      const isApart =
        Math.abs(x - otherX) >= (width + otherWidth) / 2 || Math.abs(y - otherY) >= (height + otherHeight) / 2;
      expect(isApart).toBe(true);
    });
  });
  const added = apply(
    scene,
    layers.map((layer, i) => ({ type: 'add-layer', index: scene.layers.length + i, layer })),
  );
  expect(added.ok && sceneSchema.safeParse(added.scene).success).toBe(true);
});

test('what came in and what did not is told, at most three by name', () => {
  expect(broughtWords([picture('a', 1, 1)])).toBe('1 picture came in.');
  const failed = ['b', 'c', 'd', 'e', 'f'].map((name) => ({ type: 'problem' as const, name, problem: 'it is empty' }));
  expect(broughtWords(failed.slice(0, 1))).toBe('Nothing came in; “b” did not: it is empty.');
  expect(broughtWords([picture('a', 1, 1), picture('z', 1, 1), ...failed])).toMatch(
    /^2 pictures came in; “b” did not: it is empty; .*“d” did not: it is empty; 2 more did not\.$/,
  );
  const font = { type: 'font' as const, name: 'f', family: 'Quill Sans' };
  expect(broughtWords([font])).toBe('The font “Quill Sans” is at hand for words now.');
});

const part = (id: string, parts: readonly DrawingTree[] = [], isFixed = false): DrawingTree => ({
  id,
  name: id,
  kind: parts.length > 0 ? 'group' : 'shape',
  isFixed,
  parts,
});

test('a drawing is taken apart as a whole, by its groups or into every part; what only looks right as one stays one', () => {
  const tree = part('d', [
    part('a', [part('a1'), part('a2', [part('a3'), part('a4')])]),
    part('b', [part('b1')], true),
    part('c'),
  ]);
  const counts = (['one', 'top', 'all'] as const).map((level) => countLayers(tree, wholeAtLevel(tree, level)));
  expect(counts).toEqual([1, 4, 8]);
  expect(canSplit(tree.parts[1])).toBe(false);
  const rows = treeRows(tree, new Set(['a2']), new Set(['d', 'a', 'a2', 'b']));
  expect(rows.map(({ part: { id }, depth, isSplit }) => `${id} ${depth} ${isSplit}`)).toEqual([
    'd 0 true',
    'a 1 true',
    'a1 2 false',
    'a2 2 false',
    'b 1 false',
    'c 1 false',
  ]);
});

const clip = (name: string, seconds: number): Extract<BroughtFile, { type: 'clip' }> => ({
  type: 'clip',
  name,
  href: `files/${'0b'.repeat(32)}.webm`,
  width: 640,
  height: 360,
  length: seconds * TICKS_PER_SECOND,
});

test('a clip lasts as long as it is, and no longer than the scene', () => {
  const spans = [2, 3_000].map((seconds) => {
    const layer = pictureLayer(scene, clip('Waves', seconds), { at: { x: 0, y: 0 }, scale: 1 }, newId);
    expect(sceneSchema.safeParse({ ...scene, layers: [layer], runs: [] }).error?.issues ?? []).toEqual([]);
    return layer.span;
  });
  expect(spans).toEqual([
    { in: 0, out: 2 * TICKS_PER_SECOND },
    { in: 0, out: scene.length },
  ]);
  expect(broughtWords([clip('a', 1), clip('b', 2)])).toBe('2 clips came in, without sound.');
});
