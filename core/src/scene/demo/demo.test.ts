import { expect, test } from '@jest/globals';
import { sceneSchema } from '../scene';
import { constellations, gateWipe, pictureWall, programmeBoard, sparks, speakers } from '.';

test.each([programmeBoard(), constellations(), speakers(), pictureWall(), gateWipe(), sparks()])(
  'the demo $name is a scene that can be held',
  (scene) => {
    expect(sceneSchema.safeParse(scene).error?.issues ?? []).toEqual([]);
  },
);

test('eight speakers of three parts, nine pictures, five bars', () => {
  const tagged = (scene: ReturnType<typeof sparks>, tag: string): number =>
    scene.layers.filter(({ tags }) => tags.includes(tag)).length;
  expect(tagged(speakers(), 'caption')).toBe(8);
  expect(speakers().layers).toHaveLength(1 + 8 * 4);
  expect([tagged(pictureWall(), 'picture'), tagged(gateWipe(), 'bar'), tagged(sparks(), 'spark')]).toEqual([9, 5, 3]);
  expect(
    new Set(pictureWall().layers.flatMap(({ source }) => (source.type === 'picture' ? [source.href] : []))).size,
  ).toBe(9);
});
