import { describe, expect, test } from '@jest/globals';
import { headerOf, MOST_NESTED, sceneSchema, treeProblem } from '.';
import { card, sceneOf } from '../../testing/scenes';

const group = (id: string, parent: string | null = null) =>
  card(id, { kind: 'group', parent, source: { type: 'none' } });

describe('how the layers of a scene hang together', () => {
  test('is fine for layers in groups in groups, in whatever order they stand', () => {
    expect(treeProblem([])).toBeNull();
    expect(treeProblem([card('x', { parent: 'b' }), group('b', 'a'), group('a'), card('y')])).toBeNull();
  });

  test.each([
    ['an id that comes twice', [card('a'), card('a')], 'Two layers have the same id'],
    [
      'a group that is not there',
      [card('a', { parent: 'gone' })],
      'Layer “a” belongs to a group that is not in the scene.',
    ],
    [
      'a group that is none',
      [card('a'), card('b', { parent: 'a' })],
      'Layer “b” belongs to “a”, which is not a group.',
    ],
    ['a layer in itself', [group('a', 'a')], 'go in a circle'],
    [
      'groups in each other',
      [group('a', 'c'), group('b', 'a'), group('c', 'b')],
      'The groups around layer “a” go in a circle.',
    ],
  ])('is refused with %s', (_, layers, sentence) => {
    expect(treeProblem(layers)).toContain(sentence);
    const read = sceneSchema.safeParse(sceneOf(layers));
    expect(read.error?.issues.map(({ message, path }) => [path, message])).toContainEqual([
      ['layers'],
      treeProblem(layers),
    ]);
  });

  test('may be as deep as layers are drawn, and no deeper, whichever is looked at first', () => {
    const chain = (deep: number) =>
      Array.from({ length: deep + 1 }, (_, i) => group(`g${i}`, i === 0 ? null : `g${i - 1}`));
    expect(treeProblem(chain(MOST_NESTED))).toBeNull();
    expect(treeProblem(chain(MOST_NESTED).reverse())).toBeNull();
    for (const layers of [chain(MOST_NESTED + 1), chain(MOST_NESTED + 1).reverse()])
      expect(treeProblem(layers)).toContain(
        `stands in ${MOST_NESTED + 1} groups, one in another. At most ${MOST_NESTED}`,
      );
  });

  test('has runs with ids of their own', () => {
    const run = { id: 'r', recipe: {}, by: 'x', when: '2026-01-01T00:00:00.000Z' };
    const read = sceneSchema.safeParse({ ...sceneOf([]), runs: [run, run] });
    expect(read.success).toBe(false);
  });
});

describe('the header of a scene', () => {
  test('is all but its layers and runs, and says nothing of what it has not', () => {
    const { layers: _layers, runs: _runs, format: _format, id: _id, ...plain } = sceneOf([card('a')]);
    expect(headerOf(sceneOf([card('a')]))).toEqual(plain);
    expect(Object.keys(headerOf(sceneOf([])))).not.toContain('background');
    const more = { background: '#102030', picks: [{ id: 'p', name: 'Rows', pick: { by: 'rule', tag: 'row' } }] };
    expect(headerOf({ ...sceneOf([]), ...more } as never)).toMatchObject(more);
  });
});
