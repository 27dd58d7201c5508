import { expect, test } from '@jest/globals';
import {
  compileScene,
  frameAt,
  programmeBoard,
  ticksFromSeconds,
  type CompiledScene,
  type Layer,
} from '@wexikine/core';
import type { Brush, Sheet } from './brush';
import { createKept } from './kept';
import { planOf } from './plan';
import type { Context, Surfaces } from './surfaces';

const base = programmeBoard().layers.find(({ kind }) => kind === 'card') as Layer;
const span = { in: 0, out: ticksFromSeconds(2) };
const linear = { type: 'linear' } as const;
const still: Layer = {
  ...base,
  id: 'still',
  parent: null,
  tracks: {},
  span,
  look: { fill: '#fff' },
  rest: { 'position.x': 5 },
};
const moving: Layer = {
  ...still,
  id: 'moving',
  tracks: {
    'position.x': [
      { at: 0, value: 0, ease: linear },
      { at: span.out, value: 100, ease: linear },
    ],
  },
};
const bounds = { x: 0, y: 0, width: 64, height: 64 };
const context = { canvas: { width: 64, height: 64 } } as Context;
const sheet: Sheet = { context, patch: bounds };

function setUp(): { kept: ReturnType<typeof createKept>; given: Context[]; arrive: () => void } {
  const given: Context[] = [];
  let arrived = 0;
  const surfaces = { give: (one: Context) => given.push(one), arrived: () => arrived } as unknown as Surfaces;
  return { kept: createKept(surfaces), given, arrive: () => arrived++ };
}

function brushAt(compiled: CompiledScene, seconds: number, more: Partial<Brush> = {}): Brush {
  const picture = { compiled, frame: frameAt(compiled, ticksFromSeconds(seconds)) };
  return { context, patch: bounds, bounds, picture, view: { scale: 1, x: 0, y: 0 }, ...more };
}

test('what looks the same twice is kept, also in a scene that was changed elsewhere', () => {
  const { kept } = setUp();
  const compiled = compileScene({ layers: [still, moving] });
  expect(kept.find(brushAt(compiled, 0), [0]).is).toBe('moving');
  expect(kept.find(brushAt(compiled, 0.1), [0]).is).toBe('still');
  kept.keep(still, sheet);
  expect(kept.find(brushAt(compiled, 0.2), [0])).toEqual({ is: 'kept', sheet });
  const changed = compileScene({ layers: [still, { ...moving, name: 'other' }] });
  expect(kept.find(brushAt(changed, 0.2), [0]).is).toBe('kept');
});

test('it is given back once a value, the view, a member or a picture that has arrived changes it', () => {
  const changes: ((compiled: CompiledScene, arrive: () => void) => Brush)[] = [
    () => brushAt(compileScene({ layers: [{ ...still }, moving] }), 0),
    (compiled) => brushAt(compiled, 0, { view: { scale: 2, x: 0, y: 0 } }),
    (compiled, arrive) => {
      arrive();
      return brushAt(compiled, 0);
    },
  ];
  for (const change of changes) {
    const { kept, arrive } = setUp();
    const compiled = compileScene({ layers: [still, moving] });
    for (let i = 0; i < 2; i++) kept.find(brushAt(compiled, 0), [0]);
    kept.keep(still, sheet);
    expect(kept.find(change(compiled, arrive), [0]).is).toBe('moving');
  }
  const { kept, given } = setUp();
  const compiled = compileScene({ layers: [still, moving] });
  for (let i = 0; i < 2; i++) kept.find(brushAt(compiled, 0), [0, 1]);
  kept.keep(still, sheet);
  expect(kept.find(brushAt(compiled, 0), [0, 1]).is).toBe('kept');
  expect(kept.find(brushAt(compiled, 0.5), [0, 1]).is).toBe('moving');
  expect(given).toEqual([context]);
});

test('its own opacity does not count; moments of a blur and mattes are never kept', () => {
  const { kept } = setUp();
  const fading: Layer = {
    ...still,
    tracks: {
      opacity: [
        { at: 0, value: 0, ease: linear },
        { at: span.out, value: 1, ease: linear },
      ],
    },
  };
  const compiled = compileScene({ layers: [fading] });
  kept.find(brushAt(compiled, 0.5), [0]);
  expect(kept.find(brushAt(compiled, 1), [0]).is).toBe('still');
  for (const more of [{ isMoment: true }, { mattes: [0] }, { isInside: true }]) {
    expect(kept.find(brushAt(compiled, 1, more), [0]).is).toBe('moving');
  }
});

test('a plan knows who can have effects, and what a layer is made of', () => {
  const group: Layer = { ...still, id: 'group', source: { type: 'none' }, look: {} };
  const matte: Layer = { ...still, id: 'matte' };
  const layers: Layer[] = [
    group,
    { ...still, id: 'child', parent: 'group', look: { matte: { layer: 'matte', how: 'reveals', isShown: false } } },
    matte,
    { ...still, id: 'soft', rest: { blur: 3 } },
    { ...still, id: 'softens', tracks: { blur: [{ at: 0, value: 0, ease: linear }] } },
    { ...still, id: 'shadowed', look: { fill: '#fff', shadow: '#000' } },
  ];
  const plan = planOf(compileScene({ layers }));
  expect([...plan.hasEffects]).toEqual([0, 0, 0, 1, 1, 1]);
  expect(plan.membersOf(0)).toEqual([0, 1, 2]);
  expect(plan.membersOf(3)).toEqual([3]);
  expect([...plan.onlyMattes]).toEqual([2]);
});
