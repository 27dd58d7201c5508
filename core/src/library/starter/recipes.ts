import {
  createMultiply,
  createStyle,
  usualColours,
  type CopyPlace,
  type MultiplyRecipe,
  type Recipe,
} from '../../scene/recipe';
import type { RecipeItem } from '../library';
import { itemFields } from './builder';

const CARDS = { by: 'rule', kind: 'card' } as const;
const WHOLE = { x: 0.5, y: 0.5, width: 1, height: 1 };
const ROUND = 'M960 140 A400 400 0 0 1 960 940 A400 400 0 0 1 960 140';

function item(id: string, name: string, note: string, body: Recipe): RecipeItem {
  return { ...itemFields({ id: `recipe-${id}`, name, note, tags: ['copies'] }), kind: 'recipe', body };
}

function spread(x: number, y: number, width: number, height: number): Extract<CopyPlace, { by: 'spread' }> {
  return { by: 'spread', shape: 'box', x, y, width, height };
}

function copies(id: string, name: string, note: string, change: Partial<MultiplyRecipe>): RecipeItem {
  return item(id, name, note, { ...createMultiply(CARDS), ...change });
}

const FADES = {
  in: { presets: [{ id: 'fade-in', weight: 1 }], length: '8f' },
  out: { presets: [{ id: 'fade-out', weight: 1 }], length: '8f' },
};
const EVEN = { type: 'linear' } as const;

/** Recipes that a new library begins with: what multiplying and styling can do. Each begins with the cards of a scene. */
export const STARTER_RECIPES: readonly RecipeItem[] = [
  copies('sparks', 'Sparks to the right', 'Sixty sparks cross from the left half to the right one.', {
    ...FADES,
    copies: 60,
    begin: spread(0.25, 0.5, 0.5, 0.8),
    end: spread(0.75, 0.5, 0.5, 0.8),
    scale: { begin: [0.4, 1.6], end: [0.4, 1.6] },
    colours: { ...usualColours(), outlined: 0.33 },
  }),
  copies('snow', 'Snow', 'Small flakes fall evenly from above the frame to below it.', {
    copies: 120,
    life: { by: 'random', least: '1.2s', most: '2s' },
    starts: 'random',
    begin: spread(0.5, -0.1, 1.1, 0.05),
    end: { by: 'direction', degrees: 90, distance: 0.68, stray: 8 },
    ease: EVEN,
    scale: { begin: [0.1, 0.35], end: [0.1, 0.35] },
  }),
  copies('confetti', 'Confetti', 'Turning scraps in many colours fall from the top.', {
    copies: 150,
    life: { by: 'random', least: '1s', most: '2s' },
    starts: 'random',
    begin: spread(0.5, -0.08, 1, 0.05),
    end: spread(0.5, 1.1, 1.1, 0.05),
    ease: { type: 'bezier', x1: 0.4, y1: 0, x2: 0.9, y2: 0.7 },
    scale: { begin: [0.2, 0.6], end: [0.2, 0.6] },
    turn: { begin: [-180, 180], end: [-720, 720] },
    colours: usualColours(),
  }),
  copies('burst', 'Burst', 'All of them fly out from where the layer rests, to every side.', {
    ...FADES,
    copies: 40,
    to: { by: 'time', at: '1s' },
    life: { by: 'rest' },
    starts: 'random',
    begin: { by: 'own' },
    end: { by: 'direction', degrees: 0, distance: 0.35, stray: 180 },
    ease: { type: 'bezier', x1: 0.1, y1: 0.8, x2: 0.2, y2: 1 },
    scale: { begin: [0.6, 1], end: [0, 0.2] },
  }),
  copies('fireflies', 'Fireflies', 'They light up and go out anywhere, a few at a time.', {
    ...FADES,
    copies: 50,
    life: { by: 'random', least: '10f', most: '1s' },
    starts: 'random',
    begin: { by: 'apart', ...WHOLE, gap: 90 },
    end: { by: 'direction', degrees: -90, distance: 0.03, stray: 90 },
    scale: { begin: [0.1, 0.4], end: [0.1, 0.4] },
    colours: { colours: [{ colour: '#ffe9a8', weight: 1 }], how: 'turns', outlined: 0 },
  }),
  copies('bubbles', 'Bubbles', 'Outlines rise from below and grow.', {
    ...FADES,
    copies: 40,
    starts: 'random',
    life: { by: 'random', least: '1s', most: '2s' },
    begin: spread(0.5, 1.05, 1, 0.1),
    end: spread(0.5, 0.2, 1, 0.6),
    ease: EVEN,
    scale: { begin: [0.1, 0.3], end: [0.5, 1.4] },
    colours: { colours: [{ colour: '#a9d3e0', weight: 1 }], how: 'turns', outlined: 1 },
  }),
  copies('grid', 'Grid that fills', 'Row by row until the frame is full, and there to stay.', {
    copies: 96,
    life: { by: 'rest' },
    begin: { by: 'grid', columns: 12, ...WHOLE, width: 0.9, height: 0.86 },
    scale: { begin: [0, 0], end: [1, 1] },
  }),
  copies('ring', 'Ring', 'One after the other around a circle.', {
    ...FADES,
    copies: 24,
    life: { by: 'rest' },
    begin: { by: 'line', d: ROUND },
    colours: {
      colours: [
        { colour: '#5bb59d', weight: 1 },
        { colour: '#f3c98b', weight: 1 },
      ],
      how: 'ramp',
      outlined: 0,
    },
  }),
  copies('starfield', 'Starfield', 'They come out of the middle and grow as they near.', {
    copies: 140,
    starts: 'random',
    life: { by: 'random', least: '12f', most: '1.2s' },
    begin: { by: 'spread', shape: 'ellipse', x: 0.5, y: 0.5, width: 0.1, height: 0.1 },
    end: { by: 'direction', degrees: 0, distance: 0.6, stray: 180 },
    ease: { type: 'bezier', x1: 0.6, y1: 0, x2: 0.9, y2: 0.6 },
    scale: { begin: [0, 0.1], end: [0.3, 0.9] },
  }),
  copies('rain', 'Rain', 'Thin streaks, fast and straight.', {
    copies: 160,
    starts: 'random',
    life: { by: 'random', least: '6f', most: '12f' },
    begin: spread(0.55, -0.1, 1.1, 0.05),
    end: { by: 'direction', degrees: 96, distance: 0.7, stray: 0 },
    ease: EVEN,
    scale: { begin: [0.05, 0.12], end: [0.05, 0.12] },
    opacity: { begin: [0.3, 0.8], end: [0.3, 0.8] },
  }),
  copies('gather', 'Gather', 'From all over the frame to where the layer rests.', {
    ...FADES,
    copies: 40,
    to: { by: 'time', at: '1.5s' },
    life: { by: 'rest' },
    starts: 'random',
    begin: spread(0.5, 0.5, 1.2, 1.2),
    end: { by: 'own' },
    ease: { type: 'bezier', x1: 0.7, y1: 0, x2: 0.3, y2: 1 },
    scale: { begin: [0.2, 0.8], end: [0, 0.1] },
  }),
  item('darker', 'A step darker each', 'Each card’s fill is a little darker than the one before it, left to right.', {
    ...createStyle(CARDS),
    order: { by: 'across' },
  }),
];
