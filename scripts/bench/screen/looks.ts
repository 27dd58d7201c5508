import type { Page } from '@playwright/test';
import { ticksFromSeconds, type Layer, type Scene } from '@wexikine/core';
import { framesWhile } from './frames';
import { report } from '../measure';
import { ADDRESS, store } from './page';

const RATE = { num: 25, den: 1 };
const LENGTH = ticksFromSeconds(4);
/** Frames in which three hundred shapes are to be drawn, a second. */
const LEAST_RATE = 20;

function shape(id: string, i: number, count: number, more: Partial<Layer>): Layer {
  const columns = Math.ceil(Math.sqrt(count * 1.8));
  const step = 1_920 / columns;
  const [x, y] = [(i % columns) * step + step / 2, Math.floor(i / columns) * step + step / 2];
  const ease = { type: 'bezier', x1: 0.4, y1: 0, x2: 0.2, y2: 1 } as const;
  return {
    id,
    name: id,
    kind: 'card',
    parent: null,
    tags: [],
    locked: false,
    hidden: false,
    span: { in: 0, out: LENGTH },
    source: { type: 'rectangle' },
    data: {},
    look: {},
    rest: { 'position.x': x, 'position.y': y, 'size.x': step * 0.6, 'size.y': step * 0.5, corner: 6 },
    tracks: {
      rotation: [
        { at: 0, value: -20, ease },
        { at: LENGTH, value: 40, ease },
      ],
    },
    ...more,
  };
}

function sceneOf(name: string, layers: Layer[]): Omit<Scene, 'id'> {
  return {
    format: 'wexikine-scene-2',
    name,
    project: '',
    width: 1_920,
    height: 1_080,
    rate: RATE,
    length: LENGTH,
    cues: [],
    layers,
    runs: [],
  };
}

const EFFECTS: Layer['rest'] = { 'border.width': 4, 'shadow.y': 8, 'shadow.blur': 8, 'shadow.opacity': 0.5 };

function decorated(layer: Layer, more: Layer['look'] = {}): Layer {
  const border = { colour: '#fdf8ea', side: 'outside' } as const;
  return {
    ...layer,
    look: { fill: '#58a07c', border, shadow: '#000000', ...more },
    rest: { ...layer.rest, ...EFFECTS },
  };
}

/** Sixty layers, each with border, shadow and mask, one of them seen through a matte. */
function sixty(): Omit<Scene, 'id'> {
  const mask = { shape: 'ellipse', how: 'add', x: 0.5, y: 0.5, width: 1.1, height: 1.1, turn: 0, soft: 0 } as const;
  const layers = Array.from({ length: 60 }, (_, i) => {
    const matte = i === 30 ? { matte: { layer: 'l0', how: 'reveals', isShown: true } as const } : {};
    return decorated(shape(`l${i}`, i, 60, {}), { masks: [mask], ...matte });
  });
  return sceneOf('Sixty looks', layers);
}

async function playing(page: Page, scene: Omit<Scene, 'id'>): Promise<number> {
  const id = await store(page, scene);
  await page.goto(`${ADDRESS}/scenes/${id}`);
  await page.getByText('as it stands').first().waitFor();
  await page.getByRole('tab', { name: 'Cues' }).click();
  await page.waitForTimeout(800);
  await page.locator('wx-preview > canvas').focus();
  const frames = await framesWhile(page, async () => {
    await page.keyboard.press('Space');
    await page.waitForTimeout(3_000);
  });
  return frames[Math.floor(frames.length * 0.9)] ?? Infinity;
}

/** Looks while they are played: nine of ten frames of the page take no longer than one of the scene. */
export async function benchLooks(page: Page): Promise<void> {
  const frame = (1_000 * RATE.den) / RATE.num;
  const many = await playing(page, sixty());
  report('60 layers with border, shadow, mask, a matte', `${many.toFixed(1)} ms`, `${frame} ms`, many <= frame);
  const layers = Array.from({ length: 300 }, (_, i) => decorated(shape(`s${i}`, i, 300, {})));
  const shapes = await playing(page, sceneOf('Three hundred looks', layers));
  const least = 1_000 / LEAST_RATE;
  report('300 shapes with border and shadow', `${shapes.toFixed(1)} ms`, `${least} ms`, shapes <= least);
}
