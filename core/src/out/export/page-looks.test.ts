import { describe, expect, test } from '@jest/globals';
import { filterText, leftOut, maskText, overlays, twoColourFilter } from './page-looks';
import type { Layer, Mask } from '../../scene/layer';
import { card, key } from '../../testing/scenes';

const own = (look: Layer['look'], more: Partial<Layer> = {}): Layer =>
  card('a', { look, ...more, rest: { 'size.x': 200, 'size.y': 100, ...more.rest } });

/** A filter without the properties of CSS that its channels are, each as its name. */
function filterOf(layer: Layer): string {
  return filterText(layer, 'l').join('; ');
}

/** The picture that a mask is. */
function pictureOf(layer: Layer, files?: ReadonlyMap<string, string>): string {
  const [text = ''] = maskText(layer, files);
  return decodeURIComponent(/svg\+xml,([^"]*)"/.exec(text)?.[1] ?? '');
}

const mask = (more: Partial<Mask> = {}): Mask => ({
  shape: 'rectangle',
  how: 'add',
  x: 0.5,
  y: 0.5,
  width: 1,
  height: 1,
  turn: 0,
  soft: 0,
  ...more,
});

describe('the filter of a layer in a page', () => {
  test('is none where nothing of it does anything', () => {
    expect(filterOf(own({}))).toBe('');
    expect(filterOf(own({ shadow: '#000', glow: '#fff' }, { rest: { 'shadow.x': 4 } }))).toBe('');
  });

  test('does colours first, in their order, then blur, shadows and glow', () => {
    const text = filterOf(
      own(
        { shadow: '#102030', shadows: [{ colour: '#40506080', x: 1, y: 28.5, blur: 30 }], glow: '#ffe2a0' },
        {
          rest: {
            'colour.hue': 30,
            'colour.brightness': 1.2,
            blur: 4,
            'shadow.opacity': 0.5,
            'glow.opacity': 0.9,
          },
        },
      ),
    );
    const order = ['brightness(', 'hue-rotate(', 'blur(', '#102030', '#40506080', '#ffe2a0'].map((part) =>
      text.indexOf(part),
    );
    expect(order.every((at) => at > 0)).toBe(true);
    expect([...order].sort((a, b) => a - b)).toEqual(order);
    expect(text).toContain('drop-shadow(1px 28.5px 30px #40506080)');
    for (const absent of ['contrast(', 'saturate(', 'grayscale(']) expect(text).not.toContain(absent);
    expect(filterOf(own({}, { tracks: { 'colour.grey': [key(0, 0), key(9, 1)] } }))).toContain('grayscale(');
  });

  test('has what the channels of a further shadow add to it, where they do', () => {
    const shadows = [{ colour: '#000000', x: 3, y: 4, blur: 5 }];
    const text = filterOf(own({ shadows }, { rest: { 'shadow2.x': 2 } }));
    expect(text).toMatch(
      /drop-shadow\(calc\(3px \+ .* \* 1px\) calc\(4px \+ .* \* 1px\) max\(0px, calc\(5px \+ .* \* 1px\)\) color-mix/,
    );
  });

  test('draws in two colours by a matrix, as long as that stands still', () => {
    const two = { dark: '#000000', light: '#ffffff' };
    const still = own({ two }, { rest: { 'colour.two': 1 } });
    expect(filterOf(still)).toBe('filter: url(#l-two)');
    // Black and white by an amount of 1 is the brightness alone. Source: the weights of sRGB, IEC 61966-2-1.
    const [values] = /values="([^"]*)"/.exec(twoColourFilter(still, 'l'))?.slice(1) ?? [''];
    const rows = values.split(' ').map(Number);
    expect(rows).toHaveLength(20);
    expect(rows.slice(0, 3).reduce((sum, part) => sum + part, 0)).toBeCloseTo(1, 2);
    expect(rows.slice(5, 8)).toEqual(rows.slice(0, 3));
    const moving = own({ two }, { tracks: { 'colour.two': [key(0, 0), key(9, 1)] } });
    expect([filterOf(moving), twoColourFilter(moving, 'l')]).toEqual(['', '']);
    expect(twoColourFilter(own({}), 'l')).toBe('');
    expect(leftOut({ layers: [moving] })).toContain('two colours that come and go (one layer)');
  });
});

describe('what lies over a layer in a page', () => {
  const rest = { 'tint.amount': 0.5, 'inner.opacity': 0.5, 'border.width': 3 };
  const look: Layer['look'] = { tint: '#112233', inner: '#445566', border: { colour: '#778899', side: 'on' } };

  test('is a tint, an inner shadow and a border of a box, each where it does something', () => {
    const { html, rules } = overlays(own(look, { rest }), 'l');
    expect(html).toBe(
      '<div class="tint" id="l-tint"></div><div class="inset" id="l-inset"></div><div class="edge" id="l-edge"></div>',
    );
    expect(rules[0]).toBe('#l-tint { background: #112233 }');
    expect(rules[1]).toContain('#l-inset { box-shadow: inset ');
    expect(rules[2]).toBe('#l-edge { --out: 0.5; background: #778899 }');
    expect(overlays(own(look), 'l').html).toBe('');
  });

  test('has a border on either side, and of two colours', () => {
    const edgeOf = (border: Layer['look']['border']): string =>
      overlays(own({ border }, { rest: { 'border.width': 2 } }), 'l').rules.join();
    expect(edgeOf({ colour: '#000', side: 'inside' })).toContain('--out: 0;');
    expect(edgeOf({ colour: '#000', side: 'outside' })).toContain('--out: 1;');
    expect(edgeOf({ colour: '#000', to: '#fff', angle: 90, side: 'on' })).toMatch(
      /background: linear-gradient\(calc\(270deg \+ .*\), #000, #fff\)/,
    );
    expect(edgeOf({ colour: '#000', side: 'on', dash: [4, 2] } as never)).toBe('');
  });

  test('is left out of words and paths, and said', () => {
    const words = own(look, {
      rest,
      source: { type: 'text', text: 'Hi', font: 'Spline Sans', weight: 400, size: 20, align: 'left' } as never,
    });
    expect(overlays(words, 'l')).toEqual({ html: '', rules: [] });
    expect(leftOut({ layers: [words, words] })).toBe(
      'The page does without what CSS cannot draw: borders of paths and words, and dashed ones (2 layers), tints of paths and words (2 layers), inner shadows of paths and words (2 layers). Those layers are drawn without it.',
    );
    expect(leftOut({ layers: [own(look, { rest })] })).toBeNull();
  });
});

describe('masks in a page', () => {
  test('are one picture over the layer and as much around it, whose ground is what the first one asks for', () => {
    const layer = own({ masks: [mask()] });
    expect(maskText(layer, undefined)[0]).toMatch(
      /^mask: url\("data:image\/svg\+xml,.*"\) center \/ 600px 300px no-repeat luminance$/,
    );
    expect(maskText(layer, undefined)[1]).toBe('mask-clip: no-clip');
    const picture = pictureOf(layer);
    expect(picture).toContain("viewBox='-200 -100 600 300' width='600' height='300'");
    expect(picture).toContain("<rect x='-200' y='-100' width='600' height='300' fill='#000'/>");
    expect(pictureOf(own({ masks: [mask({ how: 'take' })] }))).toContain("height='300' fill='#fff'/>");
  });

  test('lie where they lie, turned and as large as they are, moved by what moves all of them', () => {
    const picture = pictureOf(
      own(
        { masks: [mask({ x: 0.25, y: 1, width: 0.5, height: 2, turn: 30 })] },
        { rest: { 'mask.x': 0.1, 'mask.y': -0.2, 'mask.scale': 3, 'mask.rotation': 45 } },
      ),
    );
    expect(picture).toContain(
      "transform='translate(120 30) rotate(45) scale(3) translate(-50 50) rotate(30) scale(1 2) translate(-50 -50)'",
    );
  });

  test('add, take, and overlap; soft ones are blurred by their own and by what softens all', () => {
    const picture = pictureOf(
      own({ masks: [mask(), mask({ how: 'take', soft: 2 }), mask({ how: 'overlap' })] }, { rest: { 'mask.soft': 3 } }),
    );
    expect([...picture.matchAll(/stdDeviation='(\d+)'/g)].map(([, soft]) => soft)).toEqual(['3', '5', '3']);
    expect([...picture.matchAll(/fill='(#...)' transform/g)].map(([, fill]) => fill)).toEqual(['#fff', '#000', '#fff']);
    expect(picture.split('mix-blend-mode:multiply')).toHaveLength(2);
    expect(pictureOf(own({ masks: [mask()] }))).not.toContain('filter');
  });

  test('of a picture show by its brightness or by where it is, from the file that is embedded', () => {
    const of = (by: 'brightness' | 'transparency', how: Mask['how'] = 'add'): string =>
      pictureOf(
        own({ masks: [mask({ picture: { href: 'files/x.png', by }, how } as never)] }),
        new Map([['files/x.png', 'data:image/png;base64,AA']]),
      );
    expect(of('brightness')).toContain("href='data:image/png;base64,AA'");
    expect(of('brightness')).toContain('0 0 0 0 1 0 0 0 0 1 0 0 0 0 1 0.2125 0.7154 0.0721 0 0');
    expect(of('brightness')).toContain('<feFlood');
    expect(of('transparency')).toContain('0 0 0 0 1 0 0 0 0 1 0 0 0 0 1 0 0 0 1 0');
    expect(of('transparency', 'take')).toContain('0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 1 0');
    expect(of('transparency')).not.toContain('<feFlood');
  });

  test('that move, or are words, are left out and said; so are those of nothing', () => {
    const moving = own({ masks: [mask()] }, { tracks: { 'mask.x': [key(0, 0), key(9, 1)] } });
    const growing = own({ masks: [mask()] }, { tracks: { 'size.x': [key(0, 0), key(9, 1)] } });
    const words = own({ masks: [mask({ shape: 'words' })] });
    for (const layer of [moving, growing, words, own({}), own({ masks: [mask()] }, { rest: { 'size.x': 0 } })])
      expect(maskText(layer, undefined)).toEqual([]);
    expect(leftOut({ layers: [moving, growing, words] })).toContain(
      'masks that move (2 layers), masks of words (one layer)',
    );
  });
});

describe('what a page does without', () => {
  const streaked = { rest: { 'streak.length': 20 } };
  test.each<[string, Layer]>([
    ['mattes', own({ matte: { layer: 'm', how: 'reveals', by: 'brightness', isShown: false } })],
    ['motion blur', own({ motionBlur: {} as never })],
    ['streaks', own({}, streaked)],
    ['the spread of shadows', own({ shadow: '#000' }, { rest: { 'shadow.opacity': 1, 'shadow.spread': 4 } })],
    ['the spread of shadows', own({ shadows: [{ colour: '#000', x: 0, y: 0, blur: 0, spread: 2 }] })],
    [
      'cut-out pictures',
      own(
        { cutout: { by: 'colour', colour: '#0f0' } as never },
        { source: { type: 'picture', href: 'x', fit: 'fill' } as never },
      ),
    ],
    [
      'times of clips by keys',
      own({}, { source: { type: 'clip', href: 'x' } as never, tracks: { 'clip.time': [key(0, 0), key(9, 1)] } }),
    ],
    ['sounds that are louder than their files', own({}, { source: { type: 'sound', href: 'x', gain: 1.5 } as never })],
  ])('%s', (words, layer) => {
    expect(leftOut({ layers: [layer] })).toContain(`${words} (one layer)`);
  });

  test('is the spread of a further shadow where it has one, or keys for one', () => {
    const shadows = [{ colour: '#000', x: 3, y: 4, blur: 5 }];
    expect(leftOut({ layers: [own({ shadows })] })).toBeNull();
    const growing = own({ shadows }, { tracks: { 'shadow2.spread': [key(0, 0), key(9, 4)] } });
    expect(leftOut({ layers: [growing] })).toContain('the spread of shadows');
  });

  test('is nothing of looks that do nothing, and of cut-outs on what is no picture', () => {
    const idle = own(
      { shadow: '#000', cutout: { by: 'colour', colour: '#0f0' } as never },
      { rest: { 'shadow.spread': 4 } },
    );
    expect(leftOut({ layers: [idle, own({}, { source: { type: 'sound', href: 'x', gain: 1 } as never })] })).toBeNull();
  });
});
