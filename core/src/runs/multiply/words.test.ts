import { describe, expect, test } from '@jest/globals';
import { createMultiply, type MultiplyRecipe } from '../../scene/recipe';
import { SHELF } from '../../testing/planning';
import { sceneOf } from '../../testing/scenes';
import { copyPlaceWords, multiplyParts } from './words';

const WHOLE = { x: 0.5, y: 0.5, width: 1, height: 1 } as const;

/** The words of one field; null where the sentence has none of that name. */
function said(name: string, more: Partial<MultiplyRecipe>): string | null {
  const recipe = { ...createMultiply({ by: 'rule', kind: 'card' }), ...more };
  const parts = multiplyParts(recipe, { scene: sceneOf([]), shelf: SHELF, count: 2 });
  return parts.find((part) => 'field' in part && part.field === name)?.text ?? null;
}

describe('the sentence of multiplying says', () => {
  test('how many, and how long each lives', () => {
    expect(said('copies', { copies: 1 })).toBe('1 copy');
    expect(said('copies', { copies: 2 })).toBe('2 copies');
    expect(said('life', { life: { by: 'fixed', length: '1s' } })).toBe('1 s');
    expect(said('life', { life: { by: 'random', least: '10f', most: '2s' } })).toBe('10 f to 2 s');
    expect(said('life', { life: { by: 'rest' } })).toBe('until the end');
  });

  test('sizes, turns and opacities: one, from one to another, and what they become; plain ones of the last two not', () => {
    const once = (at: number) => ({ begin: [at, at], end: [at, at] }) as MultiplyRecipe['scale'];
    expect(said('size', { scale: once(1) })).toBe('their own size');
    expect(said('size', { scale: once(0.5) })).toBe('50 %');
    expect(said('size', { scale: { begin: [0.5, 2], end: [0.5, 2] } })).toBe('50 % to 200 %');
    expect(said('size', { scale: { begin: [1, 1], end: [0, 0] } })).toBe('100 %, then 0 %');
    expect(said('size', { scale: { begin: [1, 2], end: [0, 0.5] } })).toBe('100 % to 200 %, then 0 % to 50 %');
    expect(said('size', { scale: { begin: [1, 2], end: [1, 3] } })).toBe('100 % to 200 %, then 100 % to 300 %');
    expect(said('turns', { turn: once(0) })).toBeNull();
    expect(said('turns', { turn: { begin: [-90, 90], end: [0, 0] } })).toBe('−90° to 90°, then 0°');
    expect(said('clear', { opacity: once(1) })).toBeNull();
    expect(said('clear', { opacity: { begin: [1, 1], end: [0.25, 0.25] } })).toBe('100 %, then 25 %');
  });

  test('presets by chance, and colours', () => {
    const preset = (...ids: string[]) => ({ presets: ids.map((id) => ({ id, weight: 1 })), length: '5f' });
    expect(said('in', {})).toBeNull();
    expect(said('in', { in: preset('fade-in') })).toBe('Fade in');
    expect(said('out', { out: preset('fade-in', 'rise-and-settle') })).toBe('Fade in or Rise & settle by chance');
    expect(said('in', { in: preset('fade-in', 'rise-and-settle', 'gone') })).toBe(
      'Fade in, Rise & settle or a preset by chance',
    );
    const colours = (how: 'turns' | 'random' | 'ramp', count: number, outlined = 0) =>
      said('colours', {
        colours: { colours: Array.from({ length: count }, () => ({ colour: '#ffffff', weight: 1 })), how, outlined },
      });
    expect(colours('turns', 1)).toBe('one colour by turns');
    expect(colours('random', 3)).toBe('3 colours by chance');
    expect(colours('ramp', 3, 0.25)).toBe('a ramp of 3 colours, 25 % as outlines');
  });
});

test.each([
  [{ by: 'stays' }, 'where they began'],
  [{ by: 'own' }, 'their own place'],
  [{ by: 'direction', degrees: 90, distance: 0.5, stray: 0 }, '50 % of the frame along 90°'],
  [{ by: 'direction', degrees: 90, distance: 0.125, stray: 20 }, '12.5 % of the frame along 90°, 20° to either side'],
  [{ by: 'spread', shape: 'box', ...WHOLE }, 'a spread over the whole frame'],
  [{ by: 'spread', shape: 'ellipse', ...WHOLE, x: 0.25, width: 0.5 }, 'an ellipse over the left half'],
  [{ by: 'spread', shape: 'box', ...WHOLE, x: 0.75, width: 0.5 }, 'a spread over the right half'],
  [{ by: 'apart', gap: 20, ...WHOLE, y: 0.25, height: 0.5 }, 'places 20 px apart over the upper half'],
  [{ by: 'grid', columns: 4, ...WHOLE, y: 0.75, height: 0.5 }, '4 columns over the lower half'],
  [{ by: 'grid', columns: 4, ...WHOLE, width: 0.5 }, '4 columns over 50 % by 100 % of the frame around 50 %, 50 %'],
  [
    { by: 'grid', columns: 4, ...WHOLE, x: 0.25, width: 0.5, height: 0.9 },
    '4 columns over 50 % by 90 % of the frame around 25 %, 50 %',
  ],
  [{ by: 'line', d: 'M0 0L9 9' }, 'places along a line'],
] as const)('a place of copies %j is %s', (place, words) => expect(copyPlaceWords(place)).toBe(words));
