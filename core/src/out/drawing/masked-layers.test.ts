import { describe, expect, test } from '@jest/globals';
import { layersOf, svg } from '../../testing/drawings';

describe('parts of a drawing that are clipped or masked', () => {
  test('a clip of shapes is a mask, in shares of the layer that it lies on', () => {
    const layers = layersOf(
      svg(`<clipPath id="k"><circle cx="20" cy="10" r="5"/><rect width="10" height="20"/></clipPath>
        <rect id="card" width="40" height="20" clip-path="url(#k)"/>
        <g id="pair" style="clip-path:url(#k)"><rect width="20" height="20"/><rect x="20" width="20" height="20"/></g>`),
    );
    const masks = [
      { shape: 'ellipse', how: 'add', x: 0.5, y: 0.5, width: 0.25, height: 0.5, turn: 0, soft: 0 },
      { shape: 'rectangle', how: 'add', x: 0.125, y: 0.5, width: 0.25, height: 1, turn: 0, soft: 0 },
    ];
    expect(layers.slice(1, 3).map(({ name, kind, look }) => [name, kind, look.masks])).toEqual([
      ['card', 'card', masks],
      ['pair', 'group', masks],
    ]);
    expect(layers).toHaveLength(5);
  });

  test('a turned layer that is clipped lies in a group that stands straight, and paths keep their rule', () => {
    const layers = layersOf(
      svg(`<clipPath id="k"><path d="M0 0H10V10H0zM2 2H8V8H2z"/><path clip-rule="evenodd" d="M0 0H10V10H0zM2 2H8V8H2z"/></clipPath>
        <rect id="card" width="40" height="20" stroke="red" transform="scale(1 2) rotate(30)" clip-path="url(#k)"/>`),
    );
    const [, group, card] = layers;
    expect([group.kind, card.kind, card.parent === group.id]).toEqual(['group', 'card', true]);
    expect(group.look.masks?.map(({ shape, rule }) => [shape, rule])).toEqual([
      ['path', 'nonzero'],
      ['path', undefined],
    ]);
  });

  test('a mask is a layer of its own that what it masks is seen through, by brightness or by where it is', () => {
    const layers = layersOf(
      svg(`<mask id="m"><rect width="9" height="9" fill="#fff"/><circle cx="4" cy="4" r="2"/></mask>
        <mask id="n" mask-type="alpha" maskUnits="userSpaceOnUse" x="0" y="0" width="5" height="9"><circle cx="4" cy="4" r="2"/></mask>
        <rect id="card" width="9" height="9" fill="red" mask="url(#m)"/><rect id="other" width="10" height="9" fill="red" mask="url(#n)"/>`),
    );
    const by = (name: string) => layers.filter((layer) => layer.name === name);
    const [wrap, card] = by('card');
    const [mask] = by('Mask of card');
    expect([wrap.kind, card.parent, mask.kind, mask.parent]).toEqual(['group', wrap.id, 'group', wrap.id]);
    expect(layers.filter(({ parent }) => parent === mask.id)).toHaveLength(2);
    expect(card.look.matte).toEqual({ layer: mask.id, how: 'reveals', by: 'brightness', isShown: false });
    const [region, other] = by('other');
    expect(other.look.matte).toEqual({ layer: by('Mask of other')[0].id, how: 'reveals', isShown: false });
    expect(region.look.masks).toMatchObject([{ shape: 'rectangle', how: 'add', x: 0.25, width: 0.5 }]);
  });

  test('a clip that is itself clipped, or clips by words or nothing, stays part of a picture', () => {
    const layers = layersOf(
      svg(`<clipPath id="k"><circle r="5"/></clipPath><clipPath id="m"><rect width="9" height="9" clip-path="url(#k)"/></clipPath>
        <clipPath id="n" clip-path="url(#k)"><rect width="9" height="9"/></clipPath><clipPath id="none"/><clipPath id="line"><path d="M0 0H9"/></clipPath>
        ${['m', 'n', 'none', 'line', 'missing'].map((id) => `<rect id="by ${id}" width="9" height="9" clip-path="url(#${id})"/>`).join('')}`),
    );
    expect(layers.slice(1).map(({ kind }) => kind)).toEqual(['picture', 'picture', 'picture', 'picture', 'picture']);
  });

  test('clips and masks in shares of a box are those of the box of what they are on', () => {
    const layers = layersOf(
      svg(`<clipPath id="k" clipPathUnits="objectBoundingBox"><rect width=".5" height="1"/></clipPath>
        <rect id="card" x="20" y="10" width="40" height="20" clip-path="url(#k)"/>`),
    );
    expect(layers[1].look.masks).toMatchObject([{ shape: 'rectangle', x: 0.25, y: 0.5, width: 0.5, height: 1 }]);
  });

  // SVG 2, 8.9 and CSS Masking 1: the box of an element is without its stroke, that of a group holds all that is in it.
  test.each([
    [
      'a picture',
      '<image id="it" x="20" y="10" width="40" height="20" href="data:image/png;base64,AA==" clip-path="url(#k)"/>',
    ],
    ['a circle', '<circle id="it" cx="40" cy="20" r="10" stroke="red" stroke-width="8" clip-path="url(#k)"/>'],
    ['a path', '<path id="it" d="M20 10 H60 V30 H20 Z" clip-path="url(#k)"/>'],
    [
      'a group',
      '<g id="it" clip-path="url(#k)"><rect x="20" y="10" width="10" height="20"/><rect x="50" y="20" width="10" height="10"/></g>',
    ],
    [
      'a moved group',
      '<g id="it" transform="translate(7 3)" clip-path="url(#k)"><rect x="20" y="10" width="10" height="20"/><rect x="50" y="20" width="10" height="10"/></g>',
    ],
  ])('a clip in shares of the box of %s takes the left half of it', (_, element) => {
    const half = '<clipPath id="k" clipPathUnits="objectBoundingBox"><rect width=".5" height="1"/></clipPath>';
    const found = layersOf(svg(half + element)).find(({ look }) => look.masks);
    expect(found?.look.masks).toEqual([
      { shape: 'rectangle', how: 'add', x: 0.25, y: 0.5, width: 0.5, height: 1, turn: 0, soft: 0 },
    ]);
  });

  test('a mask that is clipped or masked itself, and one without any parts, stay part of a picture', () => {
    const ids = ['clipped', 'masked', 'empty'];
    const layers = layersOf(
      svg(`<clipPath id="k"><rect width="4" height="4"/></clipPath><mask id="m"><rect width="9" height="9" fill="#fff"/></mask>
        <mask id="clipped" clip-path="url(#k)"><rect width="9" height="9"/></mask>
        <mask id="masked" mask="url(#m)"><rect width="9" height="9"/></mask><mask id="empty"/>
        ${ids.map((id) => `<rect id="by ${id}" width="9" height="9" mask="url(#${id})"/>`).join('')}`),
    );
    expect(layers.slice(1).map(({ name, kind }) => [name, kind])).toEqual(ids.map((id) => [`by ${id}`, 'picture']));
  });

  test('a mask of a region and a clip of a shape overlap, the last one cutting', () => {
    const layers = layersOf(
      svg(`<clipPath id="k"><rect width="8" height="8"/></clipPath>
        <mask id="m" maskUnits="userSpaceOnUse" x="0" y="0" width="5" height="9"><circle cx="4" cy="4" r="2" fill="#fff"/></mask>
        <rect id="card" width="10" height="9" fill="red" clip-path="url(#k)" mask="url(#m)"/>`),
    );
    const [region] = layers.filter(({ name }) => name === 'card');
    expect(region.look.masks?.map(({ how, x, width }) => [how, x, width])).toEqual([
      ['add', 0.4, 0.8],
      ['overlap', 0.25, 0.5],
    ]);
  });

  test('a mask in itself, or of too many parts, stays part of a picture', () => {
    const layers = layersOf(
      svg(`<mask id="m"><rect width="9" height="9" mask="url(#m)"/></mask><rect id="card" width="9" height="9" mask="url(#m)"/>
        <mask id="n">${'<rect width="9" height="9"/>'.repeat(201)}</mask><rect id="many" width="9" height="9" mask="url(#n)"/>`),
    );
    expect(layers.find(({ name }) => name === 'many')?.kind).toBe('picture');
    expect(layers.find(({ name }) => name === 'Mask of card')?.kind).toBe('picture');
  });
});
