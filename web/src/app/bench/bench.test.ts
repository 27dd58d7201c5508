import { describe, expect, test } from '@jest/globals';
import { createShelf, easingFromStrengths, STARTER_LIBRARY, type HouseItem, type PresetItem } from '@wexikine/core';
import { createSpecimen } from '../drawing/specimen';
import { curvePath, curveRange } from '../drawing/curve-shape';
import { readChannelValue, withKey } from '../scene/panels/hand-key';
import { completionsFor, unitCompletions } from './completions';
import { effectsOf } from './effects';
import { tokensOf } from './formula-tokens';
import { doBench, redoBench, startBench, undoBench } from './history';
import { inspect, scopeFor } from './inspection';

const shelf = createShelf(STARTER_LIBRARY);

function preset(id: string): PresetItem {
  const item = shelf.preset(id);
  if (!item) throw new Error(id);
  return item;
}

describe('the undo list of a bench', () => {
  const step = (label: string, when: number, merge: string | null = null) => ({ label, merge, when });

  test('goes back and on, and forgets what was undone once something new is done', () => {
    let history = startBench('a');
    history = doBench(history, 'b', step('to b', 0));
    history = doBench(history, 'c', step('to c', 9_000));
    const back = undoBench(undoBench(history));
    expect([back.now, redoBench(back).now, redoBench(redoBench(back)).now]).toEqual(['a', 'b', 'c']);
    expect(doBench(undoBench(history), 'd', step('to d', 9_999)).undone).toEqual([]);
    expect(undoBench(startBench('a'))).toEqual(startBench('a'));
  });

  test('makes one step of what is typed in one go, and another of what comes later or elsewhere', () => {
    let history = startBench('');
    for (const [text, when] of [
      ['1', 0],
      ['12', 400],
      ['12f', 900],
    ] as const) {
      history = doBench(history, text, step('type', when, 'cell'));
    }
    expect(history.done).toHaveLength(1);
    expect(undoBench(history).now).toBe('');
    expect(doBench(history, 'x', step('type', 1_000, 'other')).done).toHaveLength(2);
    expect(doBench(history, 'x', step('type', 9_000, 'cell')).done).toHaveLength(2);
    const resumed = doBench(undoBench(history), '1', step('type', 950, 'cell'));
    expect(undoBench(resumed).now).toBe('');
  });
});

describe('formulas as they are shown', () => {
  test.each([
    'rest × (1 + @over) # why',
    'let a = 3f\na × 2',
    'if @side.left then 1 else 0',
    'rest × (1 + ',
    '@@@ ???',
    '',
  ])('“%s” is cut into coloured stretches that are the whole text', (text) => {
    const tokens = tokensOf(text);
    expect(tokens.map((token) => token.text).join('')).toBe(text);
    for (const { from, to, text: part } of tokens) expect(text.slice(from, to)).toBe(part);
  });

  test('each kind of word has its colour', () => {
    const kinds = Object.fromEntries(
      tokensOf('if @side.left then min(rest, 12px) else 0 # note').map(({ text, kind }) => [text, kind]),
    );
    expect(kinds).toMatchObject({
      if: 'word',
      '@side.left': 'parameter',
      min: 'call',
      rest: 'name',
      '12px': 'number',
      '# note': 'comment',
    });
  });
});

describe('completions', () => {
  const { body } = preset('tip-over');
  const labels = (channel: Parameters<typeof scopeFor>[1]) =>
    completionsFor(scopeFor(body, channel), body).map(({ label }) => label);

  test('offer what may stand in the place: options of choices, rest only in cells', () => {
    expect(labels('rotation')).toEqual(
      expect.arrayContaining(['@angle', '@corner.topLeft', 'rest', 'layer.left', 'ease']),
    );
    expect(labels('rotation')).not.toContain('@corner');
    expect(labels(null)).not.toContain('rest');
  });

  test('say what each parameter is called, and offer units after a number', () => {
    const angle = completionsFor(scopeFor(body, 'rotation'), body).find(({ label }) => label === '@angle');
    expect(angle?.detail).toBe('From');
    expect(unitCompletions('12').map(({ label }) => label)).toEqual([
      '12',
      '12%',
      '12px',
      '12s',
      '12ms',
      '12f',
      '12deg',
      '12Hz',
    ]);
  });
});

describe('looking at a preset through its specimen', () => {
  test('cells and moments show what they come to on the specimen', () => {
    const item = preset('pop-in-five-steps');
    const inspection = inspect(item.body, shelf, createSpecimen(item, shelf));
    expect(['start', 'peak', 'dip', 'echo', 'last', 'rest'].map((id) => inspection.cell('scale.x', id))).toEqual([
      '0 %',
      '120 %',
      '80 %',
      '110 %',
      '90 %',
      '100 %',
    ]);
    expect(inspection.moment('echo')).toBe('14 f');
    expect(inspection.problems).toEqual([]);
  });

  test('problems are found at their cell, their moment and their parameter', () => {
    const item = preset('rise-and-settle');
    const [first, ...rows] = item.body.rows;
    const body = {
      ...item.body,
      parameters: item.body.parameters.map((entry) => (entry.name === 'tilt' ? { ...entry, default: '6px' } : entry)),
      moments: item.body.moments.map((moment) => (moment.id === 'past' ? { ...moment, at: 'soon' } : moment)),
      rows: [{ ...first, cells: first.cells.map((cell) => ({ ...cell, value: 'rest +' })) }, ...rows],
    };
    const inspection = inspect(body, shelf, createSpecimen({ ...item, body }, shelf));
    expect(inspection.cellProblem('position.y', 'start')?.message).toContain('stops too early');
    expect(inspection.momentProblem('past')?.message).toContain('Nothing here is called soon.');
    expect(inspection.parameterProblem('tilt')?.message).toContain('This gives a length');
    expect(inspection.cellProblem('opacity', 'start')).toBeUndefined();
  });
});

describe('what a change of a house value or a curve would do', () => {
  function changed(id: string, body: object) {
    const item = shelf.items.get(id) as HouseItem;
    return { ...item, body: { ...item.body, ...body } } as HouseItem;
  }

  test('a duration changes the defaults that are tied to it', () => {
    const effects = effectsOf(changed('house-steady', { value: '12f' }), shelf);
    expect(effects.find(({ id }) => id === 'unfold')).toMatchObject({ words: '@lasts 14 f → 12 f' });
    expect(effects.map(({ id }) => id)).not.toContain('spin-in');
  });

  test('nothing is told where nothing changes', () => {
    expect(effectsOf(changed('house-steady', {}), shelf)).toEqual([]);
  });

  test('a curve changes how presets move that are eased by it', () => {
    const curve = shelf.items.get('curve-soft');
    if (curve?.kind !== 'curve') throw new Error();
    const effects = effectsOf({ ...curve, body: { easing: { type: 'linear' } } }, shelf);
    expect(effects.find(({ id }) => id === 'bump')?.words).toMatch(/^scale x: /);
  });
});

describe('keys by hand', () => {
  test('take the place of a key at the same time, and keep its easing', () => {
    const ease = easingFromStrengths(0.1, 0.9);
    const track = [
      { at: 0, value: 1, ease },
      { at: 10, value: 2, ease },
    ];
    expect(withKey(track, 10, 5)).toEqual([track[0], { at: 10, value: 5, ease }]);
    expect(withKey(track, 5, 9).map(({ at }) => at)).toEqual([0, 5, 10]);
    expect(withKey([], 3, 1)).toHaveLength(1);
  });

  test('are typed in the channel’s unit, shares as per cent', () => {
    expect([readChannelValue('scale.x', '50 %'), readChannelValue('position.y', '−12 px')]).toEqual([0.5, -12]);
    expect(readChannelValue('rotation', 'round')).toBeNull();
  });
});

describe('a curve as a shape', () => {
  test('stays in its box, whatever overshoots', () => {
    const box = { width: 100, height: 50, padding: 5 };
    for (const item of STARTER_LIBRARY) {
      if (item.kind !== 'curve') continue;
      const numbers = (curvePath(item.body.easing, box).match(/-?[\d.]+/g) ?? []).map(Number);
      expect(Math.min(...numbers)).toBeGreaterThanOrEqual(4.9);
      expect(Math.max(...numbers)).toBeLessThanOrEqual(95.1);
    }
    expect(curveRange({ type: 'spring', damping: 0.2, within: 0.001 })[1]).toBeGreaterThan(1.4);
  });
});
