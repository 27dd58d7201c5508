import { expect, test } from '../pages/test';
import {
  apply,
  boundsAt,
  centreOf,
  compileScene,
  createProgress,
  createRecipe,
  createShelf,
  exportPage,
  formatEasing,
  frameAt,
  matrixAt,
  plan,
  programmeBoard,
  randomAt,
  sampleTrack,
  secondsFromTicks,
  STARTER_LIBRARY,
  ticksFromSeconds,
  writeLayerMatrix,
  channelOf,
  CHANNEL_COUNT,
  type ChannelId,
  type Easing,
  type PresetRecipe,
  type Scene,
  constellations,
} from '@wexikine/core';

/** Random numbers that are the same in every run. */
function numbers(seed: number): () => number {
  let index = 0;
  return () => randomAt(seed, index++);
}

function easings(): Easing[] {
  const next = numbers(11);
  const beziers = Array.from({ length: 60 }, (): Easing => ({
    type: 'bezier',
    x1: next(),
    y1: next() * 3 - 1,
    x2: next(),
    y2: next() * 3 - 1,
  }));
  const points = Array.from({ length: 15 }, (): Easing => {
    const inputs = Array.from({ length: 5 }, next).sort((a, b) => a - b);
    return {
      type: 'points',
      points: [
        { input: 0, output: 0 },
        ...inputs.map((input) => ({ input, output: next() * 2 - 0.5 })),
        { input: 1, output: 1 },
      ],
    };
  });
  const steps = (['start', 'end', 'none', 'both'] as const).flatMap((jump) =>
    [2, 5, 9].map((count): Easing => ({ type: 'steps', count, jump })),
  );
  return [...beziers, ...points, ...steps, { type: 'linear' }];
}

test('easings agree with the browser’s Web Animations within 1e-6 of the range', async ({ page }) => {
  const shares = Array.from({ length: 41 }, (_, i) => i / 40 + (i % 7) * 1e-4).filter((share) => share < 1);
  const list = easings();
  const theirs = await page.evaluate(
    ({ texts, at }) =>
      texts.map((easing) => {
        const animation = new Animation(
          new KeyframeEffect(document.documentElement, null, { duration: 1e6, fill: 'both', easing }),
        );
        return at.map((share) => {
          animation.currentTime = share * 1e6;
          return animation.effect?.getComputedTiming().progress ?? NaN;
        });
      }),
    { texts: list.map((easing) => formatEasing(easing) as string), at: shares },
  );
  list.forEach((easing, i) => {
    const progress = createProgress(easing as Exclude<Easing, { type: 'handles' }>);
    const values = shares.map(progress);
    const range = Math.max(1, Math.max(...values) - Math.min(...values));
    shares.forEach((share, n) => {
      const miss = Math.abs(values[n] - theirs[i][n]) / range;
      expect(miss, `${formatEasing(easing) ?? ''} at ${share}`).toBeLessThan(1e-6);
    });
  });
});

test('keys with several segments agree with Web Animations', async ({ page }) => {
  const next = numbers(5);
  const keys = [0, 0.2, 0.5, 0.9, 1].map((offset) => ({
    offset,
    value: next() * 400 - 200,
    ease: { type: 'bezier', x1: next(), y1: next() * 2 - 0.5, x2: next(), y2: next() * 2 - 0.5 } as const,
  }));
  const length = ticksFromSeconds(2);
  const track = keys.map(({ offset, value, ease }) => ({ at: Math.round(offset * length), value, ease }));
  const shares = Array.from({ length: 50 }, (_, i) => (i + 0.3) / 50);
  const theirs = await page.evaluate(
    ({ frames, at }) => {
      CSS.registerProperty({ name: '--probe', syntax: '<number>', inherits: false, initialValue: '0' });
      const animation = document.body.animate(frames, { duration: 2000, fill: 'both' });
      animation.pause();
      return at.map((share) => {
        animation.currentTime = share * 2000;
        return Number(getComputedStyle(document.body).getPropertyValue('--probe'));
      });
    },
    {
      frames: keys.map(({ offset, value, ease }) => ({
        offset,
        '--probe': String(value),
        easing: formatEasing(ease) as string,
      })),
      at: shares,
    },
  );
  // Chromium prints a computed number with six digits; that is the precision of this comparison.
  shares.forEach((share, i) => expect(Math.abs(sampleTrack(track, share * length) - theirs[i])).toBeLessThan(6e-4));
});

test('transforms agree with DOMMatrix', async ({ page }) => {
  const next = numbers(3);
  const layers = Array.from({ length: 40 }, () => ({
    'position.x': next() * 2000 - 500,
    'position.y': next() * 2000 - 500,
    rotation: next() * 900 - 450,
    skew: next() * 120 - 60,
    'scale.x': next() * 4 - 2,
    'scale.y': next() * 4 - 2,
    'anchor.x': next() * 2 - 0.5,
    'anchor.y': next() * 2 - 0.5,
    'size.x': next() * 500,
    'size.y': next() * 500,
  }));
  const theirs = await page.evaluate(
    (list) =>
      list.map((v, i) => {
        const own = (u: typeof v) =>
          new DOMMatrix()
            .translate(u['position.x'], u['position.y'])
            .rotate(u.rotation)
            .skewX(u.skew)
            .scale(u['scale.x'], u['scale.y'])
            .translate(-u['anchor.x'] * u['size.x'], -u['anchor.y'] * u['size.y']);
        const m = i % 2 === 1 ? own(list[i - 1]).multiply(own(v)) : own(v);
        return [m.a, m.b, m.c, m.d, m.e, m.f];
      }),
    layers,
  );
  const values = new Float64Array(layers.length * CHANNEL_COUNT);
  const out = new Float64Array(layers.length * 6);
  layers.forEach((layer, i) => {
    for (const [id, value] of Object.entries(layer))
      values[i * CHANNEL_COUNT + channelOf(id as ChannelId).slot] = value;
    writeLayerMatrix(values, i, i % 2 === 1 ? i - 1 : -1, out);
    // Chromium keeps parts of a DOMMatrix in single precision, which has about seven digits.
    const size = Math.max(1, ...theirs[i].map(Math.abs));
    theirs[i].forEach((value, n) => expect(Math.abs(out[i * 6 + n] - value)).toBeLessThan(2e-7 * size));
  });
});

const shelf = createShelf(STARTER_LIBRARY);

function withRun(scene: Scene, recipe: Partial<PresetRecipe>, runId: string): Scene {
  const pick = { by: 'rule' as const, tag: 'row' };
  const plain = createRecipe('bring-in', 'rise-and-settle', pick);
  const whole: PresetRecipe = { ...plain, order: { by: 'down' }, spacing: { by: 'gap', gap: '4f' }, ...recipe };
  const planned = plan(scene, shelf, whole, { runId, by: 'Test', when: '2026-01-01T00:00:00.000Z' });
  const result = apply(scene, planned.edits);
  if (!result.ok) throw new Error(result.problem.code);
  return result.scene;
}

/** Middle of every shown layer's box in the exported page at a time, as the browser lays it out. */
async function middlesInPage(page: import('@playwright/test').Page, times: readonly number[]) {
  return page.evaluate((list) => {
    const { wexikine } = globalThis as unknown as { wexikine: { show: (ms: number) => void } };
    return list.map((seconds) => {
      wexikine.show(seconds * 1000);
      return [...document.querySelectorAll<HTMLElement>('[data-layer]')].map((element) => {
        const { left, top, right, bottom } = element.getBoundingClientRect();
        return {
          id: element.dataset['layer'],
          x: (left + right) / 2,
          y: (top + bottom) / 2,
          opacity: Number(getComputedStyle(element).opacity),
        };
      });
    });
  }, times);
}

for (const [name, scene] of [
  [
    'rows that rise, tilt, bump and leave',
    withRun(
      withRun(
        withRun(programmeBoard(), {}, 'run-1'),
        { operation: 'accent', preset: { id: 'bump' }, start: { by: 'time', at: '3:00' } },
        'run-2',
      ),
      { operation: 'send-out', preset: { id: 'sink-away' } },
      'run-3',
    ),
  ],
  [
    'stars from the edge',
    withRun(
      constellations(),
      {
        preset: { id: 'slide-from-left-edge' },
        pick: { by: 'rule', tag: 'star' },
        spacing: { by: 'total', total: '3s' },
      },
      'run-1',
    ),
  ],
] as const) {
  test(`the exported page shows the same positions as sampling, at ten times: ${name}`, async ({ page }) => {
    await page.setViewportSize({ width: scene.width, height: scene.height });
    await page.setContent(exportPage(scene));
    const times = Array.from({ length: 10 }, (_, i) => (secondsFromTicks(scene.length) * (i + 0.37)) / 10);
    const shown = await middlesInPage(page, times);
    const compiled = compileScene(scene);
    times.forEach((seconds, i) => {
      const frame = frameAt(compiled, ticksFromSeconds(seconds));
      let seen = 0;
      for (const { id, x, y, opacity } of shown[i]) {
        const index = scene.layers.findIndex((layer) => layer.id === id);
        const middle = centreOf(boundsAt(frame, index));
        expect(Math.abs(x - middle.x), `${id} x at ${seconds}`).toBeLessThan(0.5);
        expect(Math.abs(y - middle.y), `${id} y at ${seconds}`).toBeLessThan(0.5);
        const expected = frame.values[index * CHANNEL_COUNT + channelOf('opacity').slot];
        expect(Math.abs(opacity - Math.min(1, Math.max(0, expected)))).toBeLessThan(1e-3);
        expect(matrixAt(frame, index).every(Number.isFinite)).toBe(true);
        seen++;
      }
      expect(seen).toBe(scene.layers.length);
    });
  });
}
