import { expect, test } from '../pages/test';
import {
  CHANNELS,
  constellations,
  frameTicks,
  programmeBoard,
  ticksFromSeconds,
  type ChannelId,
  type Key,
  type Layer,
} from '@wexikine/core';
import { card, sceneWith } from '../pages/made-scenes';
import { expectSame, key, openPainter, SMALL, WHOLE } from '../pages/page-and-painter';
import { saved } from '../pages/library-screen';
import { SceneScreen } from '../pages/scene-screen';

/** A picture of four fields, wider than it is high, as SVG. */
const PICTURE = `data:image/svg+xml;base64,${Buffer.from(
  '<svg xmlns="http://www.w3.org/2000/svg" width="120" height="60"><rect width="60" height="30" fill="#d33"/><rect x="60" width="60" height="30" fill="#3d3"/><rect y="30" width="60" height="30" fill="#33d"/><rect x="60" y="30" width="60" height="30" fill="#dd3"/></svg>',
).toString('base64')}`;

/** Two values that a channel moves between, so that it is seen. */
const ENDS: Readonly<Record<ChannelId, readonly [number, number]>> = {
  'position.x': [220, 420],
  'position.y': [150, 260],
  'path.distance': [0, 0.9],
  'anchor.x': [0.1, 0.9],
  'anchor.y': [0.2, 1],
  'scale.x': [0.4, 1.6],
  'scale.y': [0.5, 1.4],
  rotation: [-40, 70],
  skew: [-20, 25],
  opacity: [0.2, 1],
  'size.x': [90, 300],
  'size.y': [60, 200],
  corner: [0, 50],
  'fill.l': [0.2, 0.9],
  'fill.a': [-0.15, 0.2],
  'fill.b': [-0.2, 0.15],
  'fill.turn': [-60, 110],
  'stroke.l': [0.2, 0.9],
  'stroke.a': [-0.15, 0.2],
  'stroke.b': [-0.2, 0.15],
  'stroke.width': [2, 24],
  'stroke.start': [0, 0.8],
  'stroke.end': [0.1, 1],
  'stroke.shift': [-0.6, 1.3],
  letterSpacing: [-2, 14],
  'words.shown': [0, 1],
  'words.number': [0, 4_200],
  blur: [0, 9],
  'crop.x': [0.1, 0.9],
  'crop.y': [0.2, 0.8],
  'crop.zoom': [1, 3],
  'shadow.x': [-30, 30],
  'shadow.y': [10, 40],
  'shadow.blur': [0, 12],
  'shadow.opacity': [0.1, 1],
  'inner.x': [-20, 24],
  'inner.y': [-12, 20],
  'inner.blur': [0, 12],
  'inner.opacity': [0.2, 1],
  'glow.size': [2, 14],
  'glow.opacity': [0.2, 1],
  'border.width': [0, 18],
  'border.turn': [-80, 40],
  'motion.blur': [1, 1],
  'streak.length': [0, 0],
  'streak.angle': [0, 0],
  'colour.brightness': [0.4, 1.4],
  'colour.contrast': [0.4, 1.6],
  'colour.saturation': [0, 2],
  'colour.hue': [-90, 140],
  'colour.grey': [0, 1],
  'colour.two': [0, 1],
  'tint.amount': [0.1, 0.9],
  'cutout.tolerance': [0.1, 0.1],
  'cutout.softness': [0.1, 0.1],
  'cutout.spill': [0, 0],
  'mask.x': [0, 0],
  'mask.y': [0, 0],
  'shadow.spread': [0, 20],
  'inner.spread': [0, 14],
  'mask.scale': [1, 1],
  'mask.rotation': [0, 0],
  'mask.soft': [0, 0],
  'clip.time': [0, 0],
  'shadow2.x': [-14, 20],
  'shadow2.y': [-6, 24],
  'shadow2.blur': [-3, 9],
  'shadow2.spread': [0, 8],
  'shadow2.opacity': [0.1, 1],
  'shadow3.x': [10, -16],
  'shadow3.y': [0, 18],
  'shadow3.blur': [-3, 9],
  'shadow3.spread': [0, 8],
  'shadow3.opacity': [0.1, 1],
  'mask1.x': [0, 0],
  'mask1.y': [0, 0],
  'mask1.width': [1, 1],
  'mask1.height': [1, 1],
  'mask1.rotation': [0, 0],
  'mask1.soft': [0, 0],
  'mask2.x': [0, 0],
  'mask2.y': [0, 0],
  'mask2.width': [1, 1],
  'mask2.height': [1, 1],
  'mask2.rotation': [0, 0],
  'mask2.soft': [0, 0],
  'mask3.x': [0, 0],
  'mask3.y': [0, 0],
  'mask3.width': [1, 1],
  'mask3.height': [1, 1],
  'mask3.rotation': [0, 0],
  'mask3.soft': [0, 0],
};

/** Channels that a page cannot carry where they are keyed; the export names them (see `leftOut`). */
const LEFT_OUT: ReadonlySet<string> = new Set([
  'streak',
  'motion',
  'mask',
  'mask1',
  'mask2',
  'mask3',
  'cutout',
  'clip',
  'colour.two',
  'shadow.spread',
  'shadow2.spread',
  'shadow3.spread',
]);

/** Channels of where a layer is. */
const PLACING: ReadonlySet<ChannelId> = new Set([
  'position.x',
  'position.y',
  'path.distance',
  'anchor.x',
  'anchor.y',
  'scale.x',
  'scale.y',
  'rotation',
  'skew',
]);

const LOOK: Layer['look'] = { fill: '#f3c98b', stroke: '#58b79c', shadow: '#e05577', cap: 'round' };
const REST: Layer['rest'] = {
  'position.x': 320,
  'position.y': 200,
  'size.x': 200,
  'size.y': 120,
  corner: 16,
  'stroke.width': 10,
  'shadow.x': 16,
  'shadow.y': 18,
  'shadow.blur': 6,
  'shadow.opacity': 0.7,
};
/** Values of what only some looks have. */
const MORE: Layer['rest'] = {
  'border.width': 8,
  'inner.x': 6,
  'inner.y': 8,
  'inner.blur': 5,
  'inner.opacity': 0.8,
  'glow.size': 6,
  'glow.opacity': 0.7,
  'tint.amount': 0.4,
};
const gradient = { from: '#f3c98b', to: '#30418f', angle: 30 } as const;
const text = {
  type: 'text',
  text: 'Tide & moon',
  font: 'Spline Sans',
  weight: 600,
  size: 36,
  align: 'middle',
} as const;

/** Every kind of thing that is drawn, each with all of its look. */
const KINDS: Readonly<Record<string, Partial<Layer>>> = {
  'a plain card': { look: { fill: '#f3c98b', shadow: '#e05577' } },
  'an outlined card': { look: LOOK },
  'a card with a border around it': {
    look: { fill: '#30418f', border: { colour: '#f3c98b', side: 'outside' }, inner: '#000000', tint: '#58b79c' },
  },
  'a picture with a border within it': {
    kind: 'picture',
    source: { type: 'picture', href: PICTURE },
    look: {
      border: { colour: '#f3c98b', to: '#e05577', angle: 60, side: 'inside' },
      inner: '#101020',
      glow: '#ffe9a8',
    },
  },
  'an ellipse with a border on its edge': {
    source: { type: 'ellipse' },
    look: {
      fill: '#30418f',
      border: { colour: '#f3c98b', side: 'on' },
      shadows: [
        { colour: '#e05577', x: 12, y: 8, blur: 3 },
        { colour: '#58b79c', x: -20, y: 10, blur: 6 },
      ],
    },
  },
  'an outlined card with a gradient': { look: { ...LOOK, fill: gradient } },
  'an ellipse': { source: { type: 'ellipse' }, look: { ...LOOK, fill: gradient } },
  'a path': { source: { type: 'path', d: 'M10 90 L50 5 L90 90 Q50 60 10 90 Z' }, look: { ...LOOK, fill: gradient } },
  'a path with many stops, dashes and a hole': {
    source: { type: 'path', d: 'M0 0 H100 V100 H0 Z M30 20 H70 V80 H30 Z' },
    look: {
      fill: {
        kind: 'radial',
        stops: [
          { at: 0, colour: '#f3c98b' },
          { at: 0.4, colour: '#30418f80' },
          { at: 1, colour: '#e05577' },
        ],
        map: [0.6, 0.2, -0.1, 0.5, 0.4, 0.5],
      },
      rule: 'evenodd',
      stroke: '#58b79c',
      join: 'miter',
      cap: 'square',
      dash: [30, 14],
    },
  },
  'an open path': {
    source: { type: 'path', d: 'M0 50 C30 -20 70 120 100 50' },
    look: { stroke: '#58b79c', cap: 'butt' },
  },
  'a word': { kind: 'word', source: text, look: { fill: '#f3c98b', shadow: '#e05577' } },
  'a word that ends at the right': { kind: 'word', source: { ...text, align: 'right' }, look: { fill: '#f3c98b' } },
  'a number in words, typed with a caret': {
    kind: 'word',
    source: { ...text, text: 'up “#”\n\\ kg', number: { decimals: 1, point: ',', group: '.' }, caret: '|' },
    look: { fill: '#f3c98b' },
  },
  'a picture': { kind: 'picture', source: { type: 'picture', href: PICTURE }, look: { shadow: '#e05577' } },
};

/** Channels that something is drawn with. */
function channelsOf(kind: Partial<Layer>): ChannelId[] {
  const isOutlined = kind.look?.stroke !== undefined;
  const hasPlainFill = typeof kind.look?.fill === 'string';
  return CHANNELS.map(({ id }) => id).filter((id) => {
    const [family] = id.split('.');
    if (id === 'fill.turn') return typeof kind.look?.fill === 'object' && 'from' in kind.look.fill;
    if (id === 'border.turn') return kind.look?.border?.to !== undefined;
    if (family === 'stroke') return isOutlined;
    if (family === 'fill') return hasPlainFill;
    if (family === 'crop') return kind.kind === 'picture';
    if (LEFT_OUT.has(family) || LEFT_OUT.has(id)) return false;
    if (family === 'shadow2' || family === 'shadow3') return kind.look?.shadows !== undefined;
    if (family === 'shadow') return kind.look?.shadow !== undefined;
    if (family === 'border') return kind.look?.border !== undefined;
    if (family === 'inner') return kind.look?.inner !== undefined;
    if (family === 'glow') return kind.look?.glow !== undefined;
    if (family === 'tint') return kind.look?.tint !== undefined;
    if (id === 'letterSpacing' || id === 'words.shown') return kind.kind === 'word';
    if (id === 'words.number') return kind.source?.type === 'text' && kind.source.number !== undefined;
    return id !== 'corner' || kind.source === undefined || kind.kind === 'picture';
  });
}

test('every channel has two values that it is drawn with', () => {
  expect(Object.keys(ENDS).sort()).toEqual(CHANNELS.map(({ id }) => id).sort());
  const drawn = new Set(Object.values(KINDS).flatMap(channelsOf));
  const missing = CHANNELS.filter(({ id }) => !drawn.has(id) && !LEFT_OUT.has(id.split('.')[0]) && !LEFT_OUT.has(id));
  expect(missing.map(({ id }) => id)).toEqual([]);
});

/** So many channels are looked at in one picture, one below the other. */
const BANDS = 4;

/** Something that is drawn, with a channel of it keyed, so many px further down. */
function keyedIn(kind: Partial<Layer>, id: ChannelId, down: number): Layer {
  const further = id === 'position.y' ? down : 0;
  const [from, to] = ENDS[id].map((value) => value + further);
  return card(id.replace('.', '-').toLowerCase(), {
    span: WHOLE,
    ...kind,
    rest: {
      ...REST,
      ...MORE,
      rotation: 12,
      ...kind.rest,
      'position.y': 200 + down,
      // Its colours are to be seen well enough to tell how they are turned.
      ...(id === 'border.turn' ? { 'border.width': 40 } : {}),
    },
    // What is drawn goes along a line and turns with it, where its way along that is keyed.
    ...(id === 'path.distance' ? { path: { d: 'M-90 0 C-40 -120 60 120 110 -20', turns: true } } : {}),
    tracks: { [id]: [key(0.1, from), key(1.8, to)] },
  });
}

for (const [name, kind] of Object.entries(KINDS)) {
  test(`the exported page draws ${name} as the preview does, with each of its channels keyed`, async ({ page }) => {
    const painter = await openPainter(page);
    // Where a layer is and how it is turned is the same for all kinds; two of them stand for the others.
    const isModel = ['an outlined card', 'a word'].includes(name);
    const channels = channelsOf(kind).filter((one) => isModel || !PLACING.has(one));
    for (let first = 0; first < channels.length; first += BANDS) {
      const ids = channels.slice(first, first + BANDS);
      const layers = ids.map((id, band) => keyedIn(kind, id, band * SMALL.height));
      const scene = { ...SMALL, height: SMALL.height * ids.length, layers };
      await expectSame(page, painter, scene, [0.8], `${name}, ${ids.join(', ')}`, ids.length);
    }
  });
}

test('groups, spans, steps and blurs inside groups are drawn alike', async ({ page }) => {
  const group = card('group', {
    kind: 'group',
    source: { type: 'none' },
    look: {},
    span: WHOLE,
    rest: { 'position.x': 320, 'position.y': 200, 'size.x': 10, 'size.y': 10, rotation: 15, opacity: 0.6, blur: 6 },
  });
  const inside = card('inside', {
    parent: 'group',
    span: { in: ticksFromSeconds(0.4), out: ticksFromSeconds(1.2) },
    rest: { ...REST, 'position.x': 0, 'position.y': 0 },
    look: LOOK,
  });
  const steps: Key[] = [{ at: 0, value: 100, ease: { type: 'steps', count: 10, jump: 'end' } }, key(2, 500)];
  const stepping = card('steps', {
    span: WHOLE,
    rest: { ...REST, 'size.x': 40, 'size.y': 40, 'position.y': 360 },
    look: { fill: '#fff' },
    tracks: { 'position.x': steps },
  });
  const scene = { ...SMALL, layers: [group, inside, stepping] };
  const frame = frameTicks(scene.rate) / 705_600_000;
  await expectSame(
    page,
    await openPainter(page),
    scene,
    [0.36, 0.4, 1.16, 1.2, 5 * frame, 10 * frame, 30 * frame],
    'groups',
  );
});

for (const demo of [programmeBoard(), constellations()]) {
  test(`${demo.name} is the same on the page as in the preview, as it stands`, async ({ page }) => {
    const seconds = demo.length / 705_600_000;
    const times = Array.from({ length: 10 }, (_, i) => Math.floor(((i + 0.5) * seconds * 25) / 10) / 25);
    await expectSame(page, await openPainter(page), demo, [times[1], times[7]], demo.name);
  });
}

test('the page fits its window, plays, pauses and scrubs; the address hides its controls; less motion shows the end', async ({
  page,
}) => {
  const moving = card('a', { tracks: { 'position.x': [key(0, 200), key(9, 1700)] } });
  const id = await sceneWith(page, [moving]);
  const screen = new SceneScreen(page);
  await screen.open(id);
  const { bytes } = await saved(page, async () => {
    await page.getByRole('button', { name: 'Export' }).click();
    await page.getByRole('menuitem', { name: /^Web page/ }).click();
  });
  await page.route('**/exported.html*', (route) => route.fulfill({ contentType: 'text/html', body: bytes }));
  await page.setViewportSize({ width: 960, height: 700 });
  await page.goto('/exported.html');
  const frame = await page.getByRole('main').boundingBox();
  expect([frame?.x, frame?.width, Math.round(frame?.height ?? 0), Math.round(frame?.y ?? 0)]).toEqual([
    0, 960, 540, 80,
  ]);
  const middle = async (): Promise<number> => {
    const box = await page.locator('[data-layer="a"] > .own').boundingBox();
    return (box?.x ?? 0) + (box?.width ?? 0) / 2;
  };
  await page.getByRole('button', { name: 'Pause' }).click();
  const slider = page.getByRole('slider', { name: 'Time' });
  await slider.fill('9000');
  expect(await middle()).toBeCloseTo(850, 0);
  await page.keyboard.press('Home');
  expect(await middle()).toBeCloseTo(100, 0);
  await page.getByRole('button', { name: 'Play' }).click();
  await expect.poll(middle).toBeGreaterThan(101);
  await page.goto('/exported.html?controls=off');
  await expect(slider).toBeHidden();
  await page.emulateMedia({ reducedMotion: 'reduce' });
  await page.goto('/exported.html');
  await expect(page.getByRole('button', { name: 'Play' })).toBeVisible();
  expect(await middle()).toBeCloseTo(850, 0);
});
