import { describe, expect, test } from '@jest/globals';
import { compileScene, lookOfLayer, sceneSchema, STARTER_LOOKS, STYLE_PART_FACTS } from '@wexikine/core';
import { lookLayer, lookSpecimen } from './look-specimen';

describe('the picture of a look', () => {
  test('is a sound scene with one card, on which the look is seen', () => {
    for (const { body, name } of STARTER_LOOKS) {
      const scene = lookSpecimen(body);
      expect([name, sceneSchema.safeParse(scene).error?.issues ?? []]).toEqual([name, []]);
      expect(scene.layers).toHaveLength(1);
      expect(scene.layers[0].look.fill).toBeDefined();
      expect(compileScene(scene).layers).toHaveLength(1);
    }
  });

  test('its card has the look and nothing else: what is taken from it again is the same look', () => {
    for (const { body } of STARTER_LOOKS) {
      const taken = lookOfLayer(lookLayer(body), STYLE_PART_FACTS);
      expect(taken?.look).toEqual(body.look);
      expect(taken?.rest).toEqual(body.rest);
    }
  });
});
