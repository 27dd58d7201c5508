import { expect, test } from '@jest/globals';
import { drawingLayers, readDrawing, wholeAt, type DrawingLevel } from '.';

/**
 * What becomes of drawings, held as it is: that such layers look as the browser draws the drawing is tried in
 * `e2e/tests/drawing.spec.ts`. What comes out otherwise is to be looked at before it is taken over with
 * `npm run unit -- whole-drawing -u`.
 */
const DRAWINGS: Readonly<Record<string, string>> = {
  'shapes, strokes, dashes and marks of style': `
    <style>.warm { fill: #f3c98b; stroke: #102030; stroke-width: 2 } #two { fill-opacity: 0.5 } rect.warm { rx: 4 }</style>
    <rect id="one" class="warm" x="5" y="6" width="40" height="20" rx="3"/>
    <rect id="two" class="warm" x="50%" y="10%" width="25%" height="20%" transform="rotate(15 120 20)"/>
    <circle cx="20" cy="60" r="10" fill="none" stroke="teal" stroke-width="3" stroke-dasharray="4 2" stroke-linecap="round"/>
    <ellipse cx="60" cy="60" rx="12" ry="6" fill="rgb(10 20 30 / 50%)" opacity="0.5"/>
    <line x1="80" y1="50" x2="110" y2="70" stroke="red" stroke-linejoin="bevel"/>
    <polygon points="120,50 140,70 110,75" fill="hsl(200 50% 40%)" fill-rule="evenodd"/>
    <polyline points="150,50 160,60 170,45" fill="none" stroke="#0a0" stroke-width="1.5"/>
    <path d="M10 90 q10 -20 20 0 t20 0 a5 5 0 0 1 10 0 z" style="fill: #336699; display: inline"/>
    <rect width="9" height="9" display="none"/><rect width="9" height="9" visibility="hidden"/>`,
  'groups, uses, symbols and nested drawings': `
    <defs><g id="leaf"><rect width="8" height="4" fill="green"/><circle cx="4" cy="2" r="1" fill="white"/></g>
      <symbol id="sign" viewBox="0 0 10 10"><path d="M0 0h10v10z" fill="#c33"/></symbol></defs>
    <g id="Board_x20_one" transform="translate(20 10) scale(2)" opacity="0.8">
      <title>The board</title><use href="#leaf" x="3" y="4"/><use href="#leaf" transform="rotate(90)"/></g>
    <use href="#sign" x="100" y="10" width="30" height="20"/>
    <svg x="10" y="60" width="50" height="30" viewBox="0 0 100 100" preserveAspectRatio="xMaxYMin meet">
      <rect width="100" height="100" fill="#789"/><rect x="50%" width="10%" height="10" fill="#fff"/></svg>
    <a href="https://example.org"><switch><rect x="180" width="10" height="10" fill="navy"/><text>no</text></switch></a>`,
  'gradients, pictures, clips and masks': `
    <defs>
      <linearGradient id="g" x1="0" y1="0" x2="1" y2="1"><stop offset="0" stop-color="#fff"/><stop offset="60%" stop-color="red" stop-opacity="0.5"/><stop offset="1"/></linearGradient>
      <linearGradient id="h" href="#g" gradientUnits="userSpaceOnUse" x1="10" x2="50" gradientTransform="rotate(10)"/>
      <radialGradient id="r" cx="0.3" cy="0.4" r="0.6"><stop offset="0" stop-color="gold"/><stop offset="1" stop-color="#0008"/></radialGradient>
      <clipPath id="c"><circle cx="80" cy="30" r="15"/><rect x="70" y="40" width="30" height="8"/></clipPath>
      <mask id="m"><rect width="200" height="100" fill="white"/><ellipse cx="150" cy="30" rx="10" ry="5"/></mask>
    </defs>
    <rect width="40" height="30" fill="url(#g)"/><rect x="0" y="40" width="40" height="30" fill="url(#h)" stroke="url(#r)"/>
    <circle cx="20" cy="85" r="12" fill="url(#r)"/>
    <g clip-path="url(#c)"><rect x="60" y="10" width="50" height="40" fill="#5a5"/><rect x="62" y="12" width="9" height="9" fill="#fff"/></g>
    <rect x="130" y="10" width="50" height="40" fill="#a55" mask="url(#m)"/>
    <image x="130" y="60" width="30" height="20" href="data:image/png;base64,AAAA" transform="skewX(10)"/>
    <rect x="170" y="60" width="20" height="20" fill="#123" filter="blur(2px)" style="mix-blend-mode: multiply"/>`,
  'words, their lines and their places': `
    <style>text { font-family: 'Spline Sans', sans-serif; font-size: 12px } .big { font-size: 20px; font-weight: bold; letter-spacing: 2px }</style>
    <text x="10" y="20">Tide &amp; moon</text>
    <text class="big" x="100" y="40" text-anchor="middle" fill="#336699" opacity="0.5">Night<tspan x="100" dy="24" fill="red">and day</tspan></text>
    <text x="190" y="80" text-anchor="end" font-weight="300" transform="translate(2 3) scale(1.5)" letter-spacing="0.1em">harbour</text>
    <text x="10" y="90" dominant-baseline="middle" font-style="italic" text-decoration="underline">slanted</text>
    <text x="60" y="90"> <tspan fill="red" font-weight="700">in a part</tspan> </text>
    <text x="120" y="95">two <tspan fill="red">colours</tspan></text>
    <text x="10 20 30" y="70" rotate="5">abc</text>`,
};

const LEVELS: readonly DrawingLevel[] = ['all', 'top', 'one'];

const CASES = Object.entries(DRAWINGS).flatMap(([name, inside]) =>
  LEVELS.map((level) => [name, level, inside] as const),
);

test.each(CASES)('a drawing of %s, taken apart by %s', (_, level, inside) => {
  const read = readDrawing(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 200 100">${inside}</svg>`);
  if (!read.ok) throw new Error(read.message);
  let made = 0;
  const { layers, ...rest } = drawingLayers(read.drawing, {
    whole: wholeAt(read.drawing, level),
    name: 'Drawing',
    at: { x: 100, y: 50 },
    scale: 1.5,
    length: 1_000,
    newId: () => `n${++made}`,
    measure: ({ text: words, size }) => ({ width: words.length * size * 0.5, ascent: size * 0.9, descent: size * 0.2 }),
  });
  expect(layers.map(({ tags: _tags, data: _data, ...layer }) => layer)).toMatchSnapshot();
  expect(rest).toMatchSnapshot();
});
