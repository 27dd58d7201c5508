import { describe, expect, test } from '@jest/globals';
import type { ColourVariation } from '../../scene/recipe';
import { colourVariationWords, numberVariationWords } from './words';

const colour = (variation: ColourVariation): string => colourVariationWords(variation, (id) => `Item ${id}`);
const step = (lightness: number, chroma: number, hue: number): string => colour({ by: 'step', lightness, chroma, hue });

describe('how colours differ, in words', () => {
  test.each([
    [step(0, 0, 0), 'the same for all'],
    [step(-0.06, 0, 0), 'each 6 % darker'],
    [step(0.125, 0, 0), 'each 12.5 % lighter'],
    [step(0, -0.1, 0), 'each greyer'],
    [step(0, 0.1, 0), 'each more colourful'],
    [step(-0.06, 0.1, 30), expect.stringMatching(/^each 6 % darker, more colourful, hue turned .*30/)],
    [colour({ by: 'colours', colours: ['#000000'], how: 'turns' }), 'one colour by turns'],
    [colour({ by: 'colours', colours: ['#000000', '#ffffff'], how: 'random' }), '2 colours at random'],
    [colour({ by: 'colours', colours: ['#000000', '#ffffff'], how: 'ramp' }), 'from #000000 to #ffffff'],
    [colour({ by: 'palette', id: 'p', how: 'turns' }), 'from “Item p” by turns'],
    [colour({ by: 'palette', id: 'p', how: 'random' }), 'from “Item p” at random'],
    [colour({ by: 'palette', id: 'p', ramp: 'dusk', how: 'ramp' }), 'along “dusk” of “Item p”'],
    [colour({ by: 'data', column: 'tint' }), 'from “tint”'],
  ])('“%s”', (words, expected) => expect(words).toEqual(expected));
});

test('how numbers differ, in words', () => {
  expect(numberVariationWords('border.width', { by: 'step', step: -2 })).toBe('each 2 px less');
  expect(numberVariationWords('border.width', { by: 'step', step: 2 })).toBe('each 2 px more');
  expect(numberVariationWords('border.width', { by: 'ramp', from: 2, to: 12 })).toBe('from 2 px to 12 px');
  expect(numberVariationWords('shadow.opacity', { by: 'fixed', value: 0.5 })).toBe('50 %');
});
