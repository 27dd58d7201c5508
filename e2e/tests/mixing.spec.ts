import { expect, test } from '../pages/test';
import { BLEND_MODES, frameTicks, ticksFromSeconds, type Layer } from '@wexikine/core';
import { card } from '../pages/made-scenes';
import { expectSame, key, openPainter, SMALL, WHOLE } from '../pages/page-and-painter';
import { compare, inkAcross, paintedAt } from '../pages/painted';

const gradient = { from: '#f3c98b', to: '#30418f', angle: 30 } as const;

/** White on the left half, grey on the next quarter, nothing on the last. */
const BARS = `data:image/svg+xml;base64,${Buffer.from(
  '<svg xmlns="http://www.w3.org/2000/svg" width="100" height="100"><path fill="#fff" d="M0 0h50v100H0z"/><path fill="#808080" d="M50 0h25v100H50z"/></svg>',
).toString('base64')}`;

test('every way of blending is as CSS has it, in the frame and in a group alone', async ({ page }) => {
  const painter = await openPainter(page);
  const ground = card('ground', {
    rest: { 'position.x': 320, 'position.y': 200, 'size.x': 640, 'size.y': 400 },
    look: { fill: { from: '#30418f', to: '#f3c98b', angle: 90 } },
    span: WHOLE,
  });
  const at = (i: number, more: Partial<Layer>): Layer =>
    card(`b${i}`, {
      rest: {
        'position.x': 70 + (i % 5) * 125,
        'position.y': 80 + Math.floor(i / 5) * 120,
        'size.x': 90,
        'size.y': 90,
        opacity: 0.8,
      },
      span: WHOLE,
      ...more,
    });
  const blended = BLEND_MODES.map((blend, i) =>
    at(i, { look: { fill: { from: '#e05577', to: '#58b79c', angle: 0 }, blend } }),
  );
  await expectSame(page, painter, { ...SMALL, layers: [ground, ...blended] }, [0.5], 'blending');
  const group = card('g', {
    kind: 'group',
    source: { type: 'none' },
    look: {},
    span: WHOLE,
    rest: { 'position.x': 320, 'position.y': 200, 'size.x': 0, 'size.y': 0 },
  });
  const inside = (id: string, x: number, more: Partial<Layer>): Layer =>
    card(id, {
      parent: 'g',
      rest: { 'position.x': x, 'position.y': 0, 'size.x': 200, 'size.y': 200 },
      span: WHOLE,
      ...more,
    });
  const layers = [
    ground,
    group,
    inside('one', -60, {}),
    inside('two', 60, { look: { fill: '#7aa2ff', blend: 'multiply' } }),
  ];
  await expectSame(page, painter, { ...SMALL, layers }, [0.5], 'blending in a group');
});

test('letters that move apart leave a word centred, or at the side where it begins or ends', async ({ page }) => {
  const painter = await openPainter(page);
  await painter.setViewportSize({ width: SMALL.width, height: SMALL.height });
  const word = (align: 'left' | 'middle' | 'right', spacing: number): Layer =>
    card('word', {
      kind: 'word',
      rest: { 'position.x': 320, 'position.y': 200, 'size.x': 400, 'size.y': 100 },
      tracks: { letterSpacing: [key(0, 0), key(1, spacing)] },
      look: { fill: '#ffffff' },
      source: { type: 'text', text: 'HIHIH', font: 'Spline Sans', weight: 400, size: 60, align },
      span: WHOLE,
    });
  const ink = async (align: 'left' | 'middle' | 'right', seconds: number) =>
    inkAcross(
      painter,
      await paintedAt(painter, { ...SMALL, background: '#000000', layers: [word(align, 30)] }, seconds),
    );
  for (const align of ['left', 'middle', 'right'] as const) {
    const [before, after] = [await ink(align, 0), await ink(align, 1)];
    expect(after.right - after.left - (before.right - before.left)).toBe(4 * 30);
    const fixed = { left: 'left', right: 'right', middle: null }[align] as 'left' | 'right' | null;
    if (fixed) expect(after[fixed]).toBe(before[fixed]);
    else expect(after.left + after.right).toBe(before.left + before.right);
  }
});

test('a layer is seen where its matte covers, or where it does not, live, and never through itself', async ({
  page,
}) => {
  const painter = await openPainter(page);
  await painter.setViewportSize({ width: SMALL.width, height: SMALL.height });
  const shown = (how: 'reveals' | 'hides', isShown = false, more: Partial<Layer> = {}): Layer =>
    card('shown', {
      rest: { 'position.x': 320, 'position.y': 200, 'size.x': 400, 'size.y': 300 },
      look: { fill: '#ff0000', matte: { layer: 'matte', how, isShown } },
      span: WHOLE,
      ...more,
    });
  const matte = card('matte', {
    rest: { 'position.x': 220, 'position.y': 200, 'size.x': 200, 'size.y': 200 },
    look: { fill: '#00ff00' },
    span: WHOLE,
    tracks: {
      'position.x': [key(0, 220), key(1, 420)],
      opacity: [
        { at: 0, value: 1, ease: { type: 'hold' } },
        { at: ticksFromSeconds(1.5), value: 0.5, ease: { type: 'hold' } },
      ],
    },
  });
  /** Colours at the left, in the middle and at the right of what is shown. */
  const seen = async (layers: Layer[], seconds: number): Promise<string[]> => {
    await paintedAt(painter, { ...SMALL, layers }, seconds);
    return painter.evaluate(() => {
      const context = document.querySelector('canvas')?.getContext('2d');
      return [180, 340, 460].map((x) =>
        Array.from(context?.getImageData(x, 200, 1, 1).data ?? [])
          .slice(0, 3)
          .join(' '),
      );
    });
  };
  const [red, green, black] = ['255 0 0', '0 255 0', '0 0 0'];
  expect(await seen([matte, shown('reveals')], 0)).toEqual([red, black, black]);
  expect(await seen([matte, shown('reveals')], 1)).toEqual([black, red, red]);
  expect(await seen([matte, shown('hides')], 0)).toEqual([black, red, red]);
  expect(await seen([matte, shown('hides', true)], 0)).toEqual([green, red, red]);
  // Half covered, half is seen: 255 × 0.5.
  expect((await seen([matte, shown('reveals')], 1.6))[2]).toMatch(/^12[78] 0 0$/);
  const through = {
    ...matte,
    look: { ...matte.look, matte: { layer: 'shown', how: 'reveals', isShown: false } as const },
  };
  expect(await seen([through, shown('reveals', true)], 0)).toHaveLength(3);
  expect(await seen([shown('reveals')], 0)).toEqual([black, black, black]);
  expect(await seen([shown('hides')], 0)).toEqual([red, red, red]);
});

test('masks that stand still, and the background, are on the page as in the preview', async ({ page }) => {
  const painter = await openPainter(page);
  const mask = { shape: 'ellipse', how: 'add', x: 0.5, y: 0.5, width: 0.8, height: 0.7, turn: 0, soft: 0 } as const;
  const masked = (
    id: string,
    x: number,
    y: number,
    masks: NonNullable<Layer['look']['masks']>,
    rest: Layer['rest'] = {},
  ): Layer =>
    card(id, {
      rest: { corner: 16, 'position.x': x, 'position.y': y, 'size.x': 180, 'size.y': 130, rotation: 10, ...rest },
      look: { fill: gradient, masks },
      span: WHOLE,
    });
  const layers = [
    masked('one', 130, 110, [mask]),
    masked('two', 330, 110, [mask, { ...mask, how: 'take', width: 0.4, height: 0.3, x: 0.6, turn: 30 }]),
    masked('three', 520, 110, [{ ...mask, soft: 12 }], { 'mask1.soft': -4 }),
    masked('four', 130, 290, [mask, { ...mask, shape: 'rectangle', how: 'overlap', x: 0.8 }]),
    masked('five', 330, 290, [{ ...mask, how: 'take' }]),
    masked('six', 520, 290, [{ ...mask, shape: 'path', d: 'M50 0 L100 100 L0 100 Z' }]),
  ];
  await expectSame(page, painter, { ...SMALL, background: '#314a6b', layers }, [0.5], 'masks');
  const own = { 'mask2.x': -0.2, 'mask2.y': 0.1, 'mask2.width': 1.6, 'mask2.height': 0.7, 'mask2.rotation': 40 };
  const moved = [masked('own', 330, 200, [mask, { ...mask, shape: 'rectangle', how: 'take', width: 0.4 }], own)];
  await expectSame(page, painter, { ...SMALL, background: '#314a6b', layers: moved }, [0.5], 'a mask moved by itself');
  await expectSame(page, painter, { ...SMALL, background: gradient, layers: [] }, [0.5], 'a background');
  const by = (way: 'brightness' | 'transparency') =>
    ({ ...mask, shape: 'picture', picture: { href: BARS, by: way } }) as const;
  const pictured = [
    masked('one', 130, 110, [by('brightness')]),
    masked('two', 330, 110, [by('transparency')]),
    masked('three', 520, 110, [mask, { ...by('brightness'), how: 'take', turn: 20 }]),
    masked('four', 130, 290, [mask, { ...by('transparency'), how: 'overlap', x: 0.7 }]),
    masked('five', 330, 290, [{ ...by('brightness'), soft: 6 }]),
    masked('six', 520, 290, [{ ...mask, width: 0.3 }, by('brightness')]),
  ];
  await expectSame(page, painter, { ...SMALL, background: '#314a6b', layers: pictured }, [0.5], 'masks by pictures');
});

test('a picture lets show by its brightness or where it is there, words where their letters are', async ({ page }) => {
  const painter = await openPainter(page);
  await painter.setViewportSize({ width: SMALL.width, height: SMALL.height });
  const box = { x: 0.5, y: 0.5, width: 1, height: 1, turn: 0, soft: 0 } as const;
  const red = (masks: NonNullable<Layer['look']['masks']>, size: readonly [number, number] = [400, 200]): Layer =>
    card('red', {
      rest: { 'position.x': 320, 'position.y': 200, 'size.x': size[0], 'size.y': size[1] },
      look: { fill: '#ff0000', masks },
      span: WHOLE,
    });
  const redAt = async (masks: NonNullable<Layer['look']['masks']>): Promise<number[]> => {
    await paintedAt(painter, { ...SMALL, layers: [red(masks)] }, 0);
    return painter.evaluate(() => {
      const context = document.querySelector('canvas')?.getContext('2d');
      return [200, 370, 480].map((x) => context?.getImageData(x, 200, 1, 1).data[0] ?? -1);
    });
  };
  const by = (way: 'brightness' | 'transparency', how: 'add' | 'take' = 'add') =>
    [{ ...box, shape: 'picture', how, picture: { href: BARS, by: way } }] as const;
  const [white, grey, none] = await redAt([...by('brightness')]);
  // A grey of 128 is as bright as 128 of 255 (CSS Masking 1, luminance masks).
  expect([white, Math.abs(grey - 128) <= 1, none]).toEqual([255, true, 0]);
  expect(await redAt([...by('transparency')])).toEqual([255, 255, 0]);
  const [hidden, half, all] = await redAt([...by('brightness', 'take')]);
  expect([hidden, Math.abs(half - 127) <= 1, all]).toEqual([0, true, 255]);

  const words = { text: 'HOH', font: 'Spline Sans', weight: 600 };
  const ink = async (size: readonly [number, number]) => {
    const masks = [{ ...box, shape: 'words', how: 'add', words }] as const;
    const shot = await paintedAt(painter, { ...SMALL, background: '#000000', layers: [red([...masks], size)] }, 0);
    return inkAcross(painter, shot);
  };
  const [small, large] = [await ink([400, 60]), await ink([400, 120])];
  expect(Math.abs(small.left + small.right - 639)).toBeLessThanOrEqual(3);
  expect((large.right - large.left) / (small.right - small.left)).toBeCloseTo(2, 1);
});

test('a layer in two colours is the same on the page, borders and pictures too', async ({ page }) => {
  const painter = await openPainter(page);
  const two = { dark: '#1b2140', light: '#ffd9a0' } as const;
  const at = (id: string, x: number, y: number, more: Partial<Layer>, amount = 1): Layer =>
    card(id, {
      span: WHOLE,
      ...more,
      rest: { 'position.x': x, 'position.y': y, 'size.x': 160, 'size.y': 120, 'colour.two': amount, ...more.rest },
      look: { fill: gradient, two, ...more.look },
    });
  const border = { colour: '#e05577', side: 'outside' } as const;
  const layers = [
    at('one', 110, 100, {}),
    at('two', 320, 100, { look: { border }, rest: { 'border.width': 8 } }),
    at('three', 530, 100, { kind: 'picture', source: { type: 'picture', href: BARS } }),
    at('four', 110, 290, {}, 0.5),
    at('five', 320, 290, { rest: { 'colour.contrast': 1.6, 'colour.hue': 40 } }),
    at('six', 530, 290, { look: { shadow: '#000000' }, rest: { 'shadow.opacity': 0.8, 'shadow.y': 14 } }),
  ];
  await expectSame(page, painter, { ...SMALL, background: '#314a6b', layers }, [0.5], 'two colours');
});

test('a shadow reaches further by its spread, as one of CSS does', async ({ page }) => {
  const painter = await openPainter(page);
  for (const one of [page, painter]) await one.setViewportSize({ width: SMALL.width, height: SMALL.height });
  // On a canvas the softness of a shadow is its deviation; CSS Backgrounds 3 (section 6.1.1) has twice that.
  const cases = [
    { spread: 20, blur: 0, shadow: 'shadow', css: '12px 10px 0 20px' },
    { spread: 16, blur: 5, shadow: 'shadow', css: '12px 10px 10px 16px' },
    { spread: 10, blur: 0, shadow: 'inner', css: 'inset 12px 10px 0 10px' },
    { spread: 10, blur: 4, shadow: 'inner', css: 'inset 12px 10px 8px 10px' },
  ] as const;
  for (const { spread, blur, shadow, css } of cases) {
    const layer = card('one', {
      rest: {
        'position.x': 320,
        'position.y': 200,
        'size.x': 200,
        'size.y': 120,
        corner: 30,
        [`${shadow}.x`]: 12,
        [`${shadow}.y`]: 10,
        [`${shadow}.blur`]: blur,
        [`${shadow}.spread`]: spread,
        [`${shadow}.opacity`]: 1,
      },
      look: { fill: '#f3c98b', [shadow]: '#e05577' },
      span: WHOLE,
    });
    await page.setContent(
      `<body style="margin:0;background:#314a6b"><div style="position:absolute;left:220px;top:140px;width:200px;height:120px;border-radius:30px;background:#f3c98b;box-shadow:${css} #e05577"></div>`,
    );
    const painted = await paintedAt(painter, { ...SMALL, background: '#314a6b', layers: [layer] }, 0);
    const { mean, share } = await compare(painter, await page.screenshot(), painted);
    expect(`${css}: ${share < 0.004 && mean < 0.5 ? 'alike' : `${share} apart, mean ${mean}`}`).toBe(`${css}: alike`);
  }
});

test('gradients turn about the middle of their box, as CSS and SVG turn theirs', async ({ page }) => {
  const painter = await openPainter(page);
  for (const one of [page, painter]) await one.setViewportSize({ width: SMALL.width, height: SMALL.height });
  const stops = [
    { at: 0, colour: '#f3c98b' },
    { at: 0.5, colour: '#e05577' },
    { at: 1, colour: '#30418f' },
  ];
  const inside = stops.map(({ at, colour }) => `<stop offset="${at}" stop-color="${colour}"/>`).join('');
  // SVG 2, section 14.2: gradients in the pixels of the shape, by their transform; CSS Images 3, section 3.1: in its box.
  const svg = (kind: string, transform: string): string =>
    `<svg width="200" height="120" style="display:block"><${kind} id="g" gradientUnits="userSpaceOnUse" ${kind === 'linearGradient' ? 'x1="0" y1="0" x2="1" y2="0"' : 'cx="0" cy="0" r="1"'} gradientTransform="rotate(35 100 60) ${transform}">${inside}</${kind}><rect width="200" height="120" fill="url(#g)"/></svg>`;
  const cases = [
    {
      called: 'two colours',
      fill: { from: '#f3c98b', to: '#30418f', angle: 20 },
      html: '<div style="width:200px;height:120px;background:linear-gradient(235deg,#f3c98b,#30418f)"></div>',
    },
    {
      called: 'many along a line',
      fill: { kind: 'linear', stops, map: [1, 0, 0, 1, 0, 0] },
      html: svg('linearGradient', 'matrix(200 0 0 120 0 0)'),
    },
    {
      called: 'many from a point',
      fill: { kind: 'radial', stops, map: [0.6, 0.2, -0.1, 0.5, 0.3, 0.4] },
      html: svg('radialGradient', 'matrix(120 24 -20 60 60 48)'),
    },
  ] as const;
  for (const { called, fill, html } of cases) {
    const layer = card('one', {
      rest: { 'position.x': 320, 'position.y': 200, 'size.x': 200, 'size.y': 120, 'fill.turn': 35 },
      look: { fill: 'stops' in fill ? { ...fill, stops: [...stops], map: [...fill.map] } : fill },
      span: WHOLE,
    });
    await page.setContent(
      `<body style="margin:0;background:#314a6b"><div style="position:absolute;left:220px;top:140px">${html}</div>`,
    );
    const painted = await paintedAt(painter, { ...SMALL, background: '#314a6b', layers: [layer] }, 0);
    const { mean, share } = await compare(painter, await page.screenshot(), painted);
    expect(`${called}: ${share < 0.002 && mean < 0.3 ? 'alike' : `${share} apart, mean ${mean}`}`).toBe(
      `${called}: alike`,
    );
  }
});

test('masks move, and a brighter matte shows more', async ({ page }) => {
  const painter = await openPainter(page);
  await painter.setViewportSize({ width: SMALL.width, height: SMALL.height });
  const redAt = async (layers: Layer[], seconds: number, xs: readonly number[]): Promise<number[]> => {
    await paintedAt(painter, { ...SMALL, layers }, seconds);
    return painter.evaluate((at) => {
      const context = document.querySelector('canvas')?.getContext('2d');
      return at.map((x) => context?.getImageData(x, 200, 1, 1).data[0] ?? -1);
    }, xs);
  };
  const mask = { shape: 'rectangle', how: 'add', x: 0.25, y: 0.5, width: 0.5, height: 1, turn: 0, soft: 0 } as const;
  const red = card('red', {
    rest: { 'position.x': 320, 'position.y': 200, 'size.x': 400, 'size.y': 200 },
    look: { fill: '#ff0000', masks: [mask] },
    span: WHOLE,
    tracks: { 'mask.x': [key(0, 0), key(1, 0.5)] },
  });
  expect(await redAt([red], 0, [220, 420])).toEqual([255, 0]);
  expect(await redAt([red], 1, [220, 420])).toEqual([0, 255]);
  const grey = card('grey', {
    rest: { 'position.x': 320, 'position.y': 200, 'size.x': 400, 'size.y': 200 },
    look: { fill: '#808080' },
    span: WHOLE,
  });
  const shown = {
    ...red,
    tracks: {},
    look: { fill: '#ff0000', matte: { layer: 'grey', how: 'reveals', isShown: false } },
  } as Layer;
  const lit = { ...shown, look: { ...shown.look, matte: { ...shown.look.matte, by: 'brightness' } } } as Layer;
  expect(await redAt([grey, shown], 0, [320])).toEqual([255]);
  // A grey of 128 is as bright as 128 of 255 (CSS Masking 1, luminance masks).
  expect(Math.abs((await redAt([grey, lit], 0, [320]))[0] - 128)).toBeLessThanOrEqual(1);
});

test('motion blur is the mean of what is seen while the shutter is open, and nothing of what stands still', async ({
  page,
}) => {
  const painter = await openPainter(page);
  await painter.setViewportSize({ width: SMALL.width, height: SMALL.height });
  const frame = frameTicks(SMALL.rate) / ticksFromSeconds(1);
  const moving: Layer = card('moving', {
    rest: { 'position.x': 100, 'position.y': 200, 'size.x': 60, 'size.y': 120 },
    look: { fill: '#ff8040', motionBlur: { angle: 180, phase: -90, samples: 16 } },
    span: WHOLE,
    tracks: {
      'position.x': [
        { at: 0, value: 100, ease: { type: 'linear' } },
        { at: ticksFromSeconds(0.4), value: 500, ease: { type: 'linear' } },
      ],
    },
  });
  const rowOf = async (layer: Layer, seconds: number): Promise<number[]> => {
    await paintedAt(painter, { ...SMALL, layers: [layer] }, seconds);
    return painter.evaluate(() => {
      const data = document.querySelector('canvas')?.getContext('2d')?.getImageData(0, 200, 640, 1).data ?? [];
      return Array.from({ length: 640 }, (_, x) => data[x * 4]);
    });
  };
  const at = 5 * frame;
  const blurred = await rowOf(moving, at);
  // The reference adds sixteen paints without blur at the same times, in floating point.
  const sum = new Array<number>(640).fill(0);
  for (let i = 0; i < 16; i++) {
    const { motionBlur: _none, ...look } = moving.look;
    const time = at - frame / 4 + (frame / 2) * ((i + 0.5) / 16);
    (await rowOf({ ...moving, look }, time)).forEach((red, x) => (sum[x] += red / 16));
  }
  expect(Math.max(...blurred.map((red, x) => Math.abs(red - sum[x])))).toBeLessThanOrEqual(2);
  expect(blurred.filter((red) => red > 20 && red < 235).length).toBeGreaterThan(15);
  // In a group that is half clear nothing of it is cut off.
  const group = card('group', {
    kind: 'group',
    source: { type: 'none' },
    look: {},
    span: WHOLE,
    rest: { opacity: 0.5, 'size.x': 0, 'size.y': 0 },
  });
  await paintedAt(painter, { ...SMALL, layers: [group, { ...moving, parent: 'group' }] }, at);
  const halved = await painter.evaluate(() => {
    const data = document.querySelector('canvas')?.getContext('2d')?.getImageData(0, 200, 640, 1).data ?? [];
    return Array.from({ length: 640 }, (_, x) => data[x * 4]);
  });
  expect(Math.max(...halved.map((red, x) => Math.abs(red - blurred[x] / 2)))).toBeLessThanOrEqual(2);
  // Its amount opens the shutter for a part of the time, about the same moment; without any it is drawn as it stands.
  const by = (amount: number, motionBlur = moving.look.motionBlur): Layer => ({
    ...moving,
    look: { ...moving.look, motionBlur },
    rest: { ...moving.rest, 'motion.blur': amount },
  });
  expect(await rowOf(by(0.5), at)).toEqual(await rowOf(by(1, { angle: 90, phase: -45, samples: 16 }), at));
  const { motionBlur: _none, ...sharp } = moving.look;
  expect(await rowOf(by(0), at)).toEqual(await rowOf({ ...moving, look: sharp }, at));
  const { tracks: _still, ...still } = moving;
  const standing = await rowOf({ ...still, tracks: {} }, at);
  expect(standing.filter((red) => red > 20 && red < 235).length).toBeLessThanOrEqual(2);
});
