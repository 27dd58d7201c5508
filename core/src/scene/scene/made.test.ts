import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Key } from '../layer';
import { madeProblem, type Made } from './made';
import { createMadeReader, layerMade, packMade, type LayerMade } from '.';

const slots = ['opacity/start', 'opacity/end', 'opacity/peak'];

const anyKeys: fc.Arbitrary<Key[]> = fc
  .uniqueArray(
    fc.record({
      slot: fc.constantFrom(...slots),
      at: fc.integer({ min: 0, max: 99 }),
      value: fc.integer({ min: -99, max: 99 }).map((whole) => whole / 16 + 0.5),
    }),
    {
      selector: ({ slot }) => slot,
      minLength: 1,
    },
  )
  .filter((keys) => new Set(keys.map(({ at }) => at)).size === keys.length)
  .map((keys) =>
    keys
      .map(({ slot, at, value }): Key => ({
        at,
        value,
        ease: { type: at % 2 ? 'hold' : 'linear' },
        by: { run: 'r', slot },
      }))
      .sort((a, b) => a.at - b.at),
  );

const anyMade = (layer: string): fc.Arbitrary<LayerMade> =>
  fc
    .record({
      moved: fc.constantFrom(0, 5),
      start: fc.integer({ min: -50, max: 50 }),
      keys: fc.option(anyKeys),
      rest: fc.boolean(),
      span: fc.boolean(),
    })
    .map(({ moved, start, keys, rest, span }) =>
      layerMade(layer, {
        moved,
        start: keys ? start : 0,
        tracks: keys ? [['opacity', keys]] : [],
        rest: rest ? [['rotation', 4]] : [],
        span: span ? { in: 1, out: 9 } : null,
      }),
    );

describe('what a run makes', () => {
  test('comes out of its columns as it went in, layer by layer', () => {
    fc.assert(
      fc.property(fc.tuple(anyMade('a'), anyMade('b'), anyMade('c')), (list) => {
        const made = packMade(list);
        expect(madeProblem(made, 3)).toBeNull();
        const read = createMadeReader('r', ['a', 'b', 'c'], JSON.parse(JSON.stringify(made)));
        list.forEach((entry, i) => {
          const { start: _start, ...rest } = read(i);
          const { start: _own, ...own } = entry;
          expect(rest).toEqual(own);
        });
      }),
    );
  });

  test('takes one number where all layers have the same', () => {
    const keys = (at: number): Key[] => [{ at, value: 1, ease: { type: 'hold' }, by: { run: 'r', slot: 's' } }];
    const list = [10, 20, 30].map((start, i) => layerMade(`${i}`, { start, tracks: [['opacity', keys(start + 4)]] }));
    expect(packMade(list)).toEqual({
      starts: [10, 20, 30],
      keys: [{ channel: 'opacity', slot: 's', after: 4, values: 1, ease: 0 }],
      eases: [{ type: 'hold' }],
    });
  });

  test('has looks and data that layers share once', () => {
    const parts = [{ fill: '#102030' }, {}, { fill: '#102030' }, { fill: '#405060' }];
    const list = parts.map((look, i) => layerMade(`${i}`, { look, data: i === 1 ? { role: 'guest' } : {} }));
    const made = packMade(list);
    expect(made.looks?.list).toEqual([{ fill: '#102030' }, { fill: '#405060' }]);
    expect(made.data?.list).toEqual([{ role: 'guest' }]);
    const read = createMadeReader('r', ['0', '1', '2', '3'], made);
    expect([0, 1, 2, 3].map((i) => read(i).look)).toEqual(parts);
    expect([0, 1].map((i) => read(i).data)).toEqual([{}, { role: 'guest' }]);
  });

  test('is refused where a column is too short, an easing is not listed, or a slot stands twice', () => {
    const row = { channel: 'opacity' as const, slot: 's', after: 0, values: 1, ease: 0 };
    expect(madeProblem({ starts: [1, 2] }, 3)).toContain('not one value for each');
    expect(madeProblem({ keys: [{ ...row, ease: 1 }], eases: [{ type: 'hold' }] }, 3)).toContain(
      'easing that is not listed',
    );
    expect(madeProblem({ keys: [{ ...row, ease: [0, null, 1] }], eases: [{ type: 'hold' }] }, 3)).toContain(
      'easing that',
    );
    expect(madeProblem({ keys: [{ ...row, ease: [0, null, 0] }], eases: [{ type: 'hold' }] }, 3)).toBeNull();
    for (const [part, word] of [
      ['looks', 'a look'],
      ['data', 'data'],
    ] as const) {
      expect(madeProblem({ [part]: { list: [{}], of: 0 } } as Made, 3)).toBeNull();
      expect(madeProblem({ [part]: { list: [{}], of: [0, null, 0] } } as Made, 3)).toBeNull();
      expect(madeProblem({ [part]: { list: [{}], of: 1 } } as Made, 3)).toContain(word);
      expect(madeProblem({ [part]: { list: [{}], of: [0, null, 1] } } as Made, 3)).toContain('not listed');
      expect(madeProblem({ [part]: { list: [{}], of: [0, null] } } as Made, 3)).toContain('not one value for each');
    }
    expect(madeProblem({ keys: [row, { ...row, channel: 'skew' }], eases: [{ type: 'hold' }] }, 3)).toBeNull();
    expect(madeProblem({ keys: [row, row], eases: [{ type: 'hold' }] }, 3)).toContain('the same slot');
  });
});
