import { expect, test } from '../pages/test';
import type { Layer } from '@wexikine/core';
import { card } from '../pages/made-scenes';
import { key, openPainter, SMALL, WHOLE } from '../pages/page-and-painter';
import { keptAndNew } from '../pages/painted';

const gradient = { from: '#f3c98b', to: '#30418f', angle: 30 } as const;

test('what stands still is kept from frame to frame and looks as if drawn anew, and so do shadows of what moves', async ({
  page,
}) => {
  const painter = await openPainter(page);
  const shadows = [{ colour: '#3040ff', x: -9, y: 4, blur: 5 }];
  const look: Layer['look'] = { fill: '#e05577', shadow: '#000', shadows };
  const rest = {
    'position.x': 120,
    'position.y': 90,
    'size.x': 90,
    'size.y': 60,
    'shadow.opacity': 0.7,
    'shadow.y': 8,
  };
  const soft = { ...rest, 'shadow.blur': 6 };
  const border = { colour: '#fff', side: 'outside' } as const;
  const mask = { shape: 'ellipse', how: 'add', x: 0.5, y: 0.5, width: 1, height: 1, turn: 0, soft: 4 } as const;
  const turning: Layer['tracks'] = { rotation: [key(0, 0), key(1, 70)], 'scale.x': [key(0.5, 1), key(1, 2)] };
  const resized: Layer['tracks'] = { 'size.x': [key(0.4, 90), key(0.8, 140)] };
  const at = (id: string, x: number, y: number, more: Partial<Layer>): Layer =>
    card(id, {
      span: WHOLE,
      look: { ...look, border },
      ...more,
      rest: { ...soft, ...more.rest, 'position.x': x, 'position.y': y },
    });
  const layers = [
    at('still', 100, 80, { rest: { 'border.width': 3, 'inner.opacity': 0.5, blur: 1 } }),
    at('masked', 260, 80, { look: { ...look, border, masks: [mask] } }),
    at('turning', 420, 90, { rest: { 'border.width': 3 }, tracks: turning }),
    at('resized', 120, 220, { tracks: resized }),
    at('stops', 300, 230, {
      look: { ...look, inner: '#204' },
      rest: { 'inner.opacity': 1, 'inner.blur': 4 },
      tracks: resized,
    }),
    at('seen', 480, 240, { look: { fill: '#58b79c', matte: { layer: 'turning', how: 'hides', isShown: true } } }),
    at('faint', 200, 330, { rest: { opacity: 0.5 } }),
  ];
  const times = [0, 0, 0, 0.2, 0.5, 0.5, 0.5, 0.9, 1.2, 1.2, 1.2, 1.6, 0.5, 0.5];
  expect(await keptAndNew(painter, { ...SMALL, layers }, times)).toBeLessThanOrEqual(2);
});

test('a layer that moves between many that stand still is drawn alone, and it all looks as when everything is drawn', async ({
  page,
}) => {
  const painter = await openPainter(page);
  const layerAt = (i: number, isMasked: boolean): Layer => {
    const rest = {
      'position.x': 60 + (i % 10) * 56,
      'position.y': 50 + Math.floor(i / 10) * 42,
      'size.x': 80,
      'size.y': 60,
      rotation: i * 7,
      opacity: i % 3 === 0 ? 0.5 : 1,
    };
    const moving = { 'position.x': [key(0, 80), key(1.9, 560)] };
    const look = i % 4 === 0 ? { fill: gradient } : { fill: i % 2 === 0 ? '#58b79c' : '#e0557780' };
    const masks: Layer['look']['masks'] = [
      { shape: 'ellipse', how: 'add', x: 0.5, y: 0.5, width: 0.9, height: 0.9, turn: 0, soft: 0 },
    ];
    const own = isMasked && i % 5 === 2 ? { ...look, masks } : look;
    return card(`c${i}`, { span: WHOLE, rest, look: own, tracks: i === 41 ? moving : {} });
  };
  const all = (isMasked: boolean): Layer[] => Array.from({ length: 80 }, (_, i) => layerAt(i, isMasked));
  // All of it stands still for a while, then one moves, another time comes twice, and it goes back.
  const times = [0, ...Array.from({ length: 16 }, (_, i) => 0.2 + i * 0.1), 0.6, 0.6, 0.7];
  expect(await keptAndNew(painter, { ...SMALL, layers: all(false) }, times)).toBeLessThanOrEqual(3);
  // Edges that are clipped and edges that are cut are smoothed in two ways; those that are not smooth are 142 apart.
  expect(await keptAndNew(painter, { ...SMALL, layers: all(true) }, times)).toBeLessThanOrEqual(28);
});
