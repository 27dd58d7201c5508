import { describe, expect, test } from '@jest/globals';
import { IDENTITY, type Box, type Matrix } from '../../basics/transform';
import { lookSchema } from '../../scene/layer';
import type { Definitions } from './colours';
import {
  bare,
  bareStyle,
  clipShapes,
  isUpright,
  maskingOf,
  maskRegion,
  masksIn,
  spaceIn,
  type MaskedSpace,
} from './masking';
import { STANDARD_STYLE, type Style } from './style';
import { elementsIn, readXml, type Element } from './xml';

const ROOM = { width: 200, height: 100 };
const SPACE: MaskedSpace & { readonly bounds: Box } = {
  matrix: IDENTITY,
  bounds: { left: 20, top: 10, right: 60, bottom: 30 },
  room: ROOM,
};

function elements(text: string): Element[] {
  const read = readXml(`<svg>${text}</svg>`);
  if (!read.ok) throw new Error(read.message);
  return elementsIn(read.root);
}

function definitions(text: string): Definitions {
  return { byId: new Map(elements(text).map((one) => [one.attributes['id'], one])), rules: [] };
}

/** The shapes of the first clip of a text. */
function shapesOf(text: string, space: MaskedSpace = SPACE) {
  return clipShapes(elements(text)[0], space, definitions(text));
}

const styled = (more: Partial<Style>): Style => ({ ...STANDARD_STYLE, ...more });

describe('what an element is clipped and masked by', () => {
  const known = definitions('<clipPath id="k"/><mask id="m"/>');

  test('is found by the names in its style', () => {
    const both = maskingOf(styled({ 'clip-path': 'url(#k)', mask: 'url(#m)' }), known);
    expect([both?.clip?.name, both?.mask?.name]).toEqual(['clipPath', 'mask']);
    expect(maskingOf(styled({ mask: 'url(#m)' }), known)).toMatchObject({ clip: null, mask: { name: 'mask' } });
    expect(maskingOf(styled({ 'clip-path': 'url(#k)' }), known)).toMatchObject({ mask: null });
  });

  test.each<[string, Partial<Style>]>([
    ['neither', {}],
    ['a clip that is not there', { 'clip-path': 'url(#gone)' }],
    ['a mask as a clip', { 'clip-path': 'url(#m)' }],
    ['a clip as a mask', { mask: 'url(#k)' }],
    ['a clip with a box of its own', { 'clip-path': 'url(#k) border-box' }],
    ['a shape in words', { 'clip-path': 'circle(50%)' }],
    ['a filter beside it', { 'clip-path': 'url(#k)', filter: 'blur(2px)' }],
    ['another way of blending', { 'clip-path': 'url(#k)', 'mix-blend-mode': 'multiply' }],
  ])('is nothing that layers have with %s', (_, more) => {
    expect(maskingOf(styled(more), known)).toBeNull();
  });
});

describe('the shapes of a clip', () => {
  test('are told by their kind and lie where they are drawn', () => {
    const shapes = shapesOf(`<clipPath id="k"><title>Window</title><desc>Two</desc>
      <rect x="1" y="2" width="10" height="20"/><ellipse cx="50" cy="40" rx="10" ry="5"/>
      <rect width="4" height="4" rx="1"/><circle cx="9" cy="9" r="3" transform="rotate(30)"/>
      <path d="M0 0h3v7z" style="clip-rule:evenodd"/></clipPath>`);
    expect(shapes?.map(({ shape, rule }) => [shape, rule])).toEqual([
      ['rectangle', 'nonzero'],
      ['ellipse', 'nonzero'],
      ['path', 'nonzero'],
      ['path', 'nonzero'],
      ['path', 'evenodd'],
    ]);
    expect(shapes?.[0].box).toEqual({ left: 1, top: 2, right: 11, bottom: 22 });
    expect(shapes?.[1].box).toMatchObject({ left: 40, top: 35, right: 60, bottom: 45 });
  });

  test('go with the clip’s own transform, then their own, then with what is clipped', () => {
    const matrix: Matrix = [2, 0, 0, 2, 100, 0];
    const shapes = shapesOf(
      '<clipPath id="k" transform="translate(5 0)"><rect width="4" height="4" transform="scale(3 1)"/></clipPath>',
      { ...SPACE, matrix },
    );
    expect(shapes?.[0]).toMatchObject({ shape: 'rectangle', box: { left: 110, top: 0, right: 134, bottom: 8 } });
  });

  test('are shares of the box of what is clipped where the clip says so', () => {
    const text = '<clipPath id="k" clipPathUnits="objectBoundingBox"><rect x=".5" width=".5" height="1"/></clipPath>';
    expect(shapesOf(text)?.[0].box).toEqual({ left: 40, top: 10, right: 60, bottom: 30 });
    expect(shapesOf(text, { ...SPACE, bounds: null })).toBeNull();
  });

  test('are used from elsewhere, once', () => {
    const square = '<rect id="s" width="4" height="4"/>';
    expect(shapesOf(`<clipPath><use href="#s" x="10" y="5%"/></clipPath>${square}`)?.[0].box).toEqual({
      left: 10,
      top: 5,
      right: 14,
      bottom: 9,
    });
    expect(shapesOf('<clipPath><use href="#gone"/></clipPath>')).toBeNull();
    expect(shapesOf(`<clipPath><use href="#u"/></clipPath><use id="u" href="#s"/>${square}`)).toBeNull();
  });

  test('that are not shown are left out, and those that are nothing make it none', () => {
    const seen = '<rect width="4" height="4"/>';
    expect(shapesOf(`<clipPath>${seen}<rect width="9" height="9" display="none"/></clipPath>`)).toHaveLength(1);
    expect(shapesOf(`<clipPath>${seen}<rect width="9" height="9" visibility="hidden"/></clipPath>`)).toHaveLength(1);
    for (const nothing of ['<path d="M0 0H9"/>', '<path d="M0 0V9"/>', '<path d="M4 4"/>', '<text>Hi</text>'])
      expect(shapesOf(`<clipPath>${seen}${nothing}</clipPath>`)).toBeNull();
    expect(shapesOf('<clipPath/>')).toBeNull();
    expect(shapesOf('<clipPath><rect width="9" height="9" display="none"/></clipPath>')).toBeNull();
  });

  test('that are clipped again, or too many, are no masks', () => {
    const [one, clipped] = ['<rect width="4" height="4"/>', '<rect width="4" height="4" clip-path="url(#o)"/>'];
    expect(shapesOf(`<clipPath>${one.repeat(20)}</clipPath>`)).toHaveLength(20);
    expect(shapesOf(`<clipPath>${one.repeat(21)}</clipPath>`)).toBeNull();
    expect(shapesOf(`<clipPath>${one}${clipped}</clipPath>`)).toBeNull();
    expect(shapesOf(`<clipPath clip-path="url(#o)">${one}</clipPath>`)).toBeNull();
  });
});

describe('the region of a mask', () => {
  const region = (attributes: string, space: MaskedSpace = SPACE) =>
    maskRegion(elements(`<mask ${attributes}/>`)[0], space);

  test('is none where it states none; else what it leaves out is a tenth around the box', () => {
    expect(region('')).toBeUndefined();
    // Source: CSS Masking 1, section 7.1: x and y are −10 %, width and height 120 % where they are not stated.
    expect(region('x="0"')).toMatchObject({ shape: 'rectangle', box: { left: 20, top: 8, right: 68 } });
    expect(region('x="0"')?.box.bottom).toBeCloseTo(32, 9);
    const { left, right, ...down } = region('height="1" y="0"')?.box ?? SPACE.bounds;
    expect(down).toEqual({ top: 10, bottom: 30 });
    expect(left).toBeCloseTo(16, 9);
    expect(right).toBeCloseTo(64, 9);
  });

  test('is in px or in shares of the room where it is not of the box', () => {
    const own = 'maskUnits="userSpaceOnUse"';
    expect(region(`${own} x="5" y="6" width="50%" height="10"`)?.box).toEqual({
      left: 5,
      top: 6,
      right: 105,
      bottom: 16,
    });
  });

  test('that is empty, or of a box that is not known, is none that can be said', () => {
    expect(region('width="0"')).toBeNull();
    expect(region('height="0"')).toBeNull();
    expect(region('width="-1"')).toBeNull();
    expect(region('x="0"', { ...SPACE, bounds: null })).toBeNull();
  });

  test('that is turned is a path', () => {
    expect(isUpright([2, 0, 0, 3, 9, 9])).toBe(true);
    expect(isUpright([0, 1, -1, 0, 0, 0])).toBe(false);
    expect(isUpright([1, 0, 0.5, 1, 0, 0])).toBe(false);
    expect(region('x="0"', { ...SPACE, matrix: [0, 1, -1, 0, 0, 0] })?.shape).toBe('path');
  });

  test('lies in the space that its units say', () => {
    expect(spaceIn(undefined, 'userSpaceOnUse', SPACE)).toEqual({ matrix: IDENTITY, room: ROOM });
    expect(spaceIn(undefined, 'objectBoundingBox', SPACE)).toEqual({
      matrix: [40, 0, 0, 20, 20, 10],
      room: { width: 1, height: 1 },
    });
  });
});

describe('shapes as the masks of a layer', () => {
  const box = { left: 10, top: 20, right: 50, bottom: 40 };
  const shape = (left: number, right: number, more: object = {}) => ({
    shape: 'rectangle' as const,
    d: 'M0 0H1V1z',
    box: { left, top: 25, right, bottom: 35 },
    rule: 'nonzero',
    ...more,
  });

  test('lie in shares of its box, and are joined', () => {
    expect(masksIn([shape(10, 30), shape(40, 50)], box)).toEqual([
      { shape: 'rectangle', how: 'add', x: 0.25, y: 0.5, width: 0.5, height: 0.5, turn: 0, soft: 0 },
      { shape: 'rectangle', how: 'add', x: 0.875, y: 0.5, width: 0.25, height: 0.5, turn: 0, soft: 0 },
    ]);
  });

  test('of a path keep its outline, and its rule where that is not the usual one of masks', () => {
    const [first, second] =
      masksIn([shape(10, 30, { shape: 'path' }), shape(10, 30, { shape: 'path', rule: 'evenodd' })], box) ?? [];
    expect(first).toMatchObject({ shape: 'path', rule: 'nonzero' });
    expect(second).not.toHaveProperty('rule');
    expect(typeof first.d).toBe('string');
  });

  test('that lie far off are none', () => {
    expect(masksIn([shape(400, 410)], box)).toHaveLength(1);
    expect(masksIn([shape(400, 440)], box)).toBeNull();
    expect(masksIn([shape(-420, -380)], box)).toBeNull();
    expect(masksIn([shape(-370, 430)], box)).toHaveLength(1);
    expect(masksIn([shape(-371, 431)], box)).toBeNull();
  });

  test('leave what they are of without clip and mask', () => {
    const [element] = elements('<rect clip-path="url(#k)" mask="url(#m)" width="4" style="fill:red"/>');
    expect(bare(element).attributes).toEqual({ width: '4', style: 'fill:red;clip-path:none;mask:none' });
    expect(bareStyle(styled({ 'clip-path': 'url(#k)', mask: 'url(#m)' }))).toEqual(STANDARD_STYLE);
  });
});

describe('how far off masks may lie', () => {
  const frame = { left: 100, top: 200, right: 120, bottom: 210 };

  /** A rectangle about a place with a size, in shares of the frame. */
  function shape(x: number, y: number, width: number, height: number) {
    const [w, h] = [20, 10];
    const box = {
      left: 100 + (x - width / 2) * w,
      right: 100 + (x + width / 2) * w,
      top: 200 + (y - height / 2) * h,
      bottom: 200 + (y + height / 2) * h,
    };
    return { shape: 'rectangle', d: '', box, rule: 'nonzero' } as const;
  }

  test('are placed in shares of its box', () => {
    const mask = { shape: 'rectangle', how: 'add', x: 0.25, y: 0.75, width: 0.5, height: 2, turn: 0, soft: 0 };
    expect(masksIn([shape(0.25, 0.75, 0.5, 2)], frame)).toEqual([mask]);
  });

  test.each([
    [10, 0.5, 1, 1],
    [-10, 0.5, 1, 1],
    [0.5, 10, 1, 1],
    [0.5, -10, 1, 1],
    [0.5, 0.5, 20, 1],
    [0.5, 0.5, 1, 20],
  ])('may be at %d, %d and %d by %d: what a look can hold, and nothing beyond', (...place) => {
    const masks = masksIn([shape(...place)], frame);
    expect(masks).not.toBeNull();
    expect(lookSchema.safeParse({ masks }).error?.issues ?? []).toEqual([]);
    const beyond = place.map((one) => (Math.abs(one) >= 10 ? one * 1.01 : one)) as typeof place;
    expect(masksIn([shape(0.5, 0.5, 1, 1), shape(...beyond)], frame)).toBeNull();
  });
});
