import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Pick, PickTerm } from '../../scene/layer';
import { applied } from '../../testing/planning';
import { card, key, sceneOf } from '../../testing/scenes';
import { createPatternTest, pickLayers, pickWords, takePart } from '.';

const at = (x: number, y: number) => ({ 'position.x': x, 'position.y': y, 'size.x': 40, 'size.y': 20 });

// The frame is 1000 × 500.
const scene = {
  ...sceneOf([
    card('g', { name: 'Board', kind: 'group', rest: at(20, 10) }),
    card('a', { name: 'Row 1', tags: ['row'], parent: 'g', rest: at(100, 100), data: { team: 'North', score: 9 } }),
    card('b', {
      name: 'Row 2',
      tags: ['row'],
      rest: at(800, 105),
      tracks: { opacity: [key(0, 1)] },
      data: { team: 'South', score: '12' },
    }),
    card('c', { name: 'Note', kind: 'word', rest: at(105, 400) }),
  ]),
  picks: [
    { id: 'rows', name: 'Rows', pick: { by: 'rule', tag: 'row' } as const },
    { id: 'loop', name: 'Loop', pick: { by: 'saved', pick: 'loop' } as const },
  ],
};

function caught(pick: Pick): string {
  return pickLayers(scene, pick)
    .map((index) => scene.layers[index].id)
    .join('');
}

test.each(['row', 'column'] as const)('who stands on the edge of a %s is in it', (axis) => {
  const here = (along: number) => (axis === 'row' ? at(0, along) : at(along, 0));
  const half = axis === 'row' ? 10 : 20;
  const places = [300 - half - 0.01, 300 - half, 300 + half, 300 + half + 0.01];
  const cards = [card('model', { rest: here(300) }), ...places.map((place, i) => card(`p${i}`, { rest: here(place) }))];
  expect(pickLayers(sceneOf(cards), { by: 'level', layer: 'model', axis })).toEqual([0, 2, 3]);
});

describe('picks', () => {
  test.each<[string, PickTerm, string]>([
    ['in a group', { by: 'group', group: 'g' }, 'a'],
    ['in the left half of the frame', { by: 'region', left: 0.05, top: 0, right: 0.5, bottom: 1 }, 'ac'],
    ['in one row', { by: 'level', layer: 'a', axis: 'row' }, 'ab'],
    ['in one column', { by: 'level', layer: 'a', axis: 'column' }, 'ac'],
    ['with keys', { by: 'state', state: 'keys' }, 'b'],
    ['without keys', { by: 'state', state: 'no-keys' }, 'gac'],
    ['whose data is', { by: 'data', column: 'team', test: 'is', value: 'north' }, 'a'],
    ['whose data is not', { by: 'data', column: 'team', test: 'is-not', value: 'north' }, 'gbc'],
    ['whose number is above', { by: 'data', column: 'score', test: 'above', value: '9.5' }, 'b'],
    ['whose number is not above itself', { by: 'data', column: 'score', test: 'above', value: '9' }, 'b'],
    ['whose number is below', { by: 'data', column: 'score', test: 'below', value: '12' }, 'a'],
    ['whose number is below none', { by: 'data', column: 'score', test: 'below', value: '9' }, ''],
    ['whose data contains', { by: 'data', column: 'team', test: 'contains', value: 'OUT' }, 'b'],
    ['whose data is empty', { by: 'data', column: 'team', test: 'empty', value: '' }, 'gc'],
    ['whose data is nothing', { by: 'data', column: 'team', test: 'is', value: '' }, 'gc'],
    ['whose number is', { by: 'data', column: 'score', test: 'is', value: '12.0' }, 'b'],
    ['whose data is filled', { by: 'data', column: 'score', test: 'filled', value: '' }, 'ab'],
    ['of a saved pick', { by: 'saved', pick: 'rows' }, 'ab'],
    ['of a saved pick that leads to itself', { by: 'saved', pick: 'loop' }, ''],
    ['of a saved pick that is gone', { by: 'saved', pick: 'ghost' }, ''],
  ])('%s', (_, term, expected) => expect(caught(term)).toBe(expected));

  test('several joined by and, or and not', () => {
    const row = { is: { by: 'rule', tag: 'row' } } as const;
    const keyed = { is: { by: 'state', state: 'keys' } } as const;
    expect(caught({ by: 'joined', how: 'all', terms: [row, keyed] })).toBe('b');
    expect(caught({ by: 'joined', how: 'all', terms: [row, { ...keyed, not: true }] })).toBe('a');
    expect(caught({ by: 'joined', how: 'all', terms: [row, { is: { by: 'rule' } }] })).toBe('ab');
    expect(caught({ by: 'joined', how: 'any', terms: [keyed, { is: { by: 'rule', kind: 'word' } }] })).toBe('bc');
  });

  test('and binds closer than or; a condition that says nothing hands its or on', () => {
    const row = { is: { by: 'rule', tag: 'row' } } as const;
    const keyed = { is: { by: 'state', state: 'keys' } } as const;
    const word = { is: { by: 'rule', kind: 'word' } } as const;
    const empty = { is: { by: 'rule' } } as const;
    const notKeyed = { ...keyed, not: true } as const;
    expect(caught({ by: 'joined', how: 'all', terms: [row, notKeyed, { ...word, or: true }] })).toBe('ac');
    expect(caught({ by: 'joined', how: 'all', terms: [word, { ...row, or: true }, keyed] })).toBe('bc');
    expect(caught({ by: 'joined', how: 'all', terms: [word, { ...empty, or: true }, row] })).toBe('abc');
    expect(caught({ by: 'joined', how: 'all', terms: [{ ...row, or: true }] })).toBe('ab');
    expect(pickWords({ by: 'joined', how: 'all', terms: [row, notKeyed, { ...word, or: true }] }, 2)).toBe(
      '2 layers tagged “row” and not with keys, or of kind word',
    );
    expect(pickWords({ by: 'joined', how: 'all', terms: [row, { ...word, or: true }] }, 2)).toBe(
      '2 layers tagged “row” or of kind word',
    );
    expect(pickWords({ by: 'joined', how: 'all', terms: [row, notKeyed] }, 2)).toBe(
      '2 layers tagged “row” and not with keys',
    );
  });

  test('layers that a run keyed', () => {
    const ran = applied(scene, { pick: { by: 'rule', kind: 'word' } });
    expect(pickLayers(ran, { by: 'made', run: 'run-1' })).toEqual([3]);
  });

  test('as words', () => {
    expect(pickWords({ by: 'rule', tag: 'row', kind: 'card' }, 12)).toBe('12 cards tagged “row”');
    const pick: Pick = {
      by: 'joined',
      how: 'all',
      terms: [{ is: { by: 'group', group: 'g' } }, { not: true, is: { by: 'state', state: 'keys' } }],
    };
    expect(pickWords(pick, 1, scene)).toBe('1 layer in “Board” and not with keys');
    expect(pickWords({ by: 'made', run: 'run-1' }, 2, applied(scene, {}))).toBe('2 layers that run 1 keyed');
    expect([1, 2, null].map((count) => pickWords({ by: 'rule' }, count))).toEqual([
      '1 layer',
      '2 layers',
      'the layers',
    ]);
    expect(pickWords({ by: 'layers', layers: ['a', 'b'] }, 2, scene)).toBe('2 layers');
    const [row, keyed] = [{ by: 'rule', tag: 'row', name: 'A*' } as const, { by: 'state', state: 'keys' } as const];
    const chosen = (layers: string[]) => ({ is: { by: 'layers' as const, layers } });
    const joined = (how: 'all' | 'any', ...terms: Extract<Pick, { by: 'joined' }>['terms']) =>
      pickWords({ by: 'joined', how, terms }, 3, scene);
    expect(joined('any', { is: row }, { is: keyed })).toBe('3 layers tagged “row” named “A*” or with keys');
    expect(joined('all', chosen(['a', 'b']), { not: true, is: keyed })).toBe(
      '3 layers chosen by hand and not with keys',
    );
    expect(joined('any', chosen(['ghost']), { not: true, is: keyed })).toBe('3 layers named “ghost” or not with keys');
  });

  test('a saved pick that is gone is an error that says so', () => {
    expect(takePart(scene, { by: 'saved', pick: 'ghost' }).findings.map(({ code }) => code)).toEqual([
      'nothing-picked',
      'unknown-pick',
    ]);
  });
});

test.each<[PickTerm, string]>([
  [{ by: 'made', run: 'r2' }, 'that run 2 keyed'],
  [{ by: 'made', run: 'r1' }, 'that run 1 keyed'],
  [{ by: 'made', run: 'gone' }, 'that run gone keyed'],
  [{ by: 'group', group: 'g' }, 'in “Board”'],
  [{ by: 'level', layer: 'a', axis: 'column' }, 'in one column with “Row 1”'],
  [{ by: 'state', state: 'no-keys' }, 'without keys'],
  [{ by: 'state', state: 'keys' }, 'with keys'],
  [{ by: 'region', left: 0, top: 0, right: 9, bottom: 9 } as PickTerm, 'in a part of the frame'],
  [{ by: 'data', column: 'team', test: 'above', value: '3' }, 'whose “team” is above 3'],
  [{ by: 'data', column: 'team', test: 'empty', value: 'x' }, 'whose “team” is empty'],
  [{ by: 'data', column: 'team', test: 'filled', value: 'x' }, 'whose “team” is'],
  [{ by: 'saved', pick: 'rows' }, 'of “Rows”'],
  [{ by: 'saved', pick: 'lost' }, 'of “lost”'],
])('%j is said in words', (term, words) => {
  const runs = ['r1', 'r2'].map((id) => ({ id })) as never;
  expect(pickWords(term, 2, { ...scene, runs })).toContain(words);
});

describe('name patterns', () => {
  test.each([
    ['row*', 'Row 12', true],
    ['*a*a*b', 'xaab', true],
    ['?ow', 'row', true],
    ['?ow', 'ow', false],
    ['a*c', 'abd', false],
    ['(x)+[y]', '(X)+[y]', true],
    ['*', '', true],
  ])('%s fits %s: %s', (pattern, name, expected) => expect(createPatternTest(pattern)(name)).toBe(expected));

  // Reference: the engine's regular expressions.
  test('fit what a regular expression of the same meaning fits', () => {
    const pattern = fc.string({ unit: fc.constantFrom('a', 'b', '*', '?'), maxLength: 8 });
    const name = fc.string({ unit: fc.constantFrom('a', 'b', 'A', ' '), maxLength: 10 });
    fc.assert(
      fc.property(pattern, name, (wanted, text) => {
        const expected = new RegExp(`^${wanted.replaceAll('*', '.*').replaceAll('?', '.')}$`, 'is').test(text);
        expect(createPatternTest(wanted)(text)).toBe(expected);
      }),
    );
  });

  test('that would take a backtracking search for ever are quick', () => {
    const name = 'a'.repeat(200);
    const began = process.hrtime.bigint();
    for (const pattern of ['*a*a*a*a*a*a*a*ab', `${'*'.repeat(100)}b`])
      expect(createPatternTest(pattern)(name)).toBe(false);
    expect(Number(process.hrtime.bigint() - began) / 1e9).toBeLessThan(2);
  });
});
