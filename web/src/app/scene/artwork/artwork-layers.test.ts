import { expect, test } from '@jest/globals';
import { apply, programmeBoard, sceneSchema } from '@wexikine/core';
import { broughtWords, pictureLayers, roomForEach } from './artwork-layers';

const scene = { ...programmeBoard(), width: 1920, height: 1080 };
const picture = (name: string, width: number, height: number) => ({
  name,
  href: 'data:image/webp;base64,AA==',
  width,
  height,
});
let made = 0;
const newId = (): string => `p-${++made}`;

test('one picture stands where it was dropped, whole, and not larger than it is', () => {
  const [small] = pictureLayers(scene, [picture('a', 300, 200)], { x: 100, y: 50 }, newId);
  expect(small.rest).toEqual({ 'position.x': 100, 'position.y': 50, 'size.x': 300, 'size.y': 200 });
  const [large] = pictureLayers(scene, [picture('b', 6000, 2000)], null, newId);
  expect([large.rest['position.x'], large.rest['size.x'], large.rest['size.y']]).toEqual([960, 1152, 384]);
});

test('several stand in a grid, none over another, and the scene holds them', () => {
  const layers = pictureLayers(
    scene,
    Array.from({ length: 7 }, (_, i) => picture(`n${i}`, 400, 900)),
    null,
    newId,
  );
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
  const failed = ['b', 'c', 'd', 'e', 'f'].map((name) => ({ name, problem: 'it is empty' }));
  expect(broughtWords(failed.slice(0, 1))).toBe('No pictures came in; “b” did not: it is empty.');
  expect(broughtWords([picture('a', 1, 1), picture('z', 1, 1), ...failed])).toMatch(
    /^2 pictures came in; “b” did not: it is empty; .*“d” did not: it is empty; 2 more did not\.$/,
  );
});

test('all pictures together leave room for the scene to be saved', () => {
  expect(roomForEach([], 1)).toBe(3_900_000);
  expect(roomForEach([], 200)).toBe(200_000);
  const held = Array.from({ length: 10 }, () => ({
    source: { type: 'picture' as const, href: 'x'.repeat(3_900_000) },
  }));
  expect(roomForEach(held, 2)).toBe(500_000);
  expect(roomForEach([...held, ...held], 2)).toBeLessThan(0);
});
