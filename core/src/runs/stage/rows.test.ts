import { describe, expect, test } from '@jest/globals';
import { card, key, sceneOf } from '../../testing/scenes';
import { edited, layerOf } from '../../testing/planning';
import type { Layer } from '../../scene/layer';
import { sceneSchema } from '../../scene/scene';
import { readTable, type Table } from '../../scene/table';
import { copyRows, usualCells, type RowsAsked } from '.';

const words = (id: string, name: string, text: string, y: number): Layer =>
  card(id, {
    name,
    kind: 'word',
    parent: 'caption',
    source: { type: 'text', text, font: 'Spline Sans', weight: 500, size: 40, align: 'left' },
    rest: { 'position.x': 150, 'position.y': y, 'size.x': 300, 'size.y': 40 },
  });

const scene = sceneOf([
  card('sky'),
  card('caption', {
    name: 'Caption',
    kind: 'group',
    source: { type: 'none' },
    look: {},
    rest: { 'position.x': 200, 'position.y': 100, 'size.x': 300, 'size.y': 100 },
    tracks: { opacity: [key(0, 0), key(10, 1)] },
  }),
  card('bar', { parent: 'caption', rest: { 'position.x': 150, 'position.y': 50, 'size.x': 300, 'size.y': 100 } }),
  words('role', 'Second line', 'role here', 70),
  words('who', 'Name', 'name here', 30),
  card('photo', {
    parent: 'caption',
    name: 'Photo',
    kind: 'picture',
    source: { type: 'picture', href: 'data:image/png;base64,AA' },
    rest: { 'position.x': 250, 'position.y': 50, 'size.x': 60, 'size.y': 60 },
  }),
]);

function tableOf(text: string): Table {
  const read = readTable(text);
  if (!read.ok) throw new Error(read.message);
  return read.table;
}

const FIRST = tableOf('name,role,photo\nIda Marsh,Astronomer,ida\nOle Reed,Keeper,ole\nUna Tide,Guide,');

let count = 0;
const newId = (): string => `new-${++count}`;
const HREF = `files/${'a'.repeat(64)}.png`;

function asked(table: Table, more: Partial<RowsAsked> = {}): RowsAsked {
  const cells = usualCells(scene, 'caption', table);
  return {
    table,
    group: 'caption',
    column: 'name',
    cells,
    place: 'below',
    gap: 20,
    isThinned: false,
    pictureOf: (cell) => (cell === 'ida' ? { href: HREF, width: 10, height: 10 } : null),
    ...more,
  };
}

const textOf = ({ source }: Layer): string => (source.type === 'text' ? source.text : '');

describe('rows of a table as copies of a group', () => {
  test('words are found by their names, then in the order in which they are read; the group takes the first row', () => {
    expect([...usualCells(scene, 'caption', FIRST)]).toEqual([
      ['who', 'name'],
      ['photo', 'photo'],
      ['role', 'role'],
    ]);
    const made = copyRows(scene, asked(FIRST), newId);
    expect(made).toMatchObject({ problem: null, added: 2, updated: 1, removed: 0, left: [], missing: ['ole'] });
    const after = edited(scene, made.edits);
    expect(sceneSchema.safeParse(after).success).toBe(true);
    expect(made.groups.map((id) => layerOf(after, id).name)).toEqual(['Ida Marsh', 'Ole Reed', 'Una Tide']);
    expect(made.groups.map((id) => layerOf(after, id).rest['position.y'])).toEqual([100, 220, 340]);
    expect(layerOf(after, made.groups[1]).data).toEqual({ name: 'Ole Reed', role: 'Keeper', photo: 'ole' });
    expect(after.layers.filter(({ kind }) => kind === 'word').map(textOf)).toEqual([
      ...['Astronomer', 'Ida Marsh', 'Keeper', 'Ole Reed', 'Guide', 'Una Tide'],
    ]);
    expect(layerOf(after, 'photo').source).toMatchObject({ href: HREF, width: 10 });
    expect(layerOf(after, made.groups[2]).tracks.opacity).toEqual(scene.layers[1].tracks.opacity);
  });

  test('words that show what the data says are found by that, before the order in which they are read', () => {
    const told = scene.layers.map((layer) => {
      if (layer.id === 'caption') return { ...layer, data: { role: 'Guide of the house', name: 'Una Tide' } };
      const text = { who: 'Guide of the house', role: 'Una Tide' }[layer.id];
      const named = { ...layer, name: `Words ${layer.id}` };
      return text === undefined || layer.source.type !== 'text'
        ? layer
        : { ...named, source: { ...layer.source, text } };
    });
    const cells = usualCells({ ...scene, layers: told }, 'caption', FIRST);
    expect([cells.get('who'), cells.get('role')]).toEqual(['role', 'name']);
  });

  test('a table that is brought in again brings copies up to date: what was done to them stays', () => {
    const { edits, groups } = copyRows(scene, asked(FIRST), newId);
    const first = edited(scene, edits);
    const moved = edited(first, [
      { type: 'set-layer', layer: groups[1], fields: { rest: { ...layerOf(first, groups[1]).rest, rotation: 5 } } },
    ]);
    const next = tableOf('name,role,photo\nOle Reed,Head keeper,\nIda Marsh,Astronomer,ida\nTom Weir,Pilot,');
    const made = copyRows(moved, asked(next), newId);
    expect(made).toMatchObject({ added: 1, updated: 2, left: ['Una Tide'] });
    const after = edited(moved, made.edits);
    const own = after.layers.filter(({ parent }) => parent === groups[1]);
    expect(own.map(textOf)).toEqual(['', 'Head keeper', 'Ole Reed', '']);
    expect(layerOf(after, groups[1])).toMatchObject({ rest: { rotation: 5 }, data: { role: 'Head keeper' } });
    expect(after.layers).toHaveLength(moved.layers.length + 5);
    const again = copyRows(after, asked(next), newId);
    expect(again.edits).toEqual([]);
    const thinned = edited(after, copyRows(after, asked(next, { isThinned: true }), newId).edits);
    expect(thinned.layers).toHaveLength(after.layers.length - 5);
    expect(thinned.layers.some(({ name }) => name === 'Una Tide')).toBe(false);
  });

  test('rest in the same place or side by side, and what cannot be says why', () => {
    const x = (place: RowsAsked['place']): (number | undefined)[] => {
      const { edits, groups } = copyRows(scene, asked(FIRST, { place, pictureOf: () => null }), newId);
      return groups.map((id) => layerOf(edited(scene, edits), id).rest['position.x']);
    };
    expect(x('same')).toEqual([200, 200, 200]);
    expect(x('beside')).toEqual([200, 520, 840]);
    const problem = (more: Partial<RowsAsked>): string | null => copyRows(scene, asked(FIRST, more), newId).problem;
    expect(problem({ group: 'bar' })).toMatch(/Choose a group/);
    expect(problem({ column: 'nobody' })).toMatch(/no column “nobody”/);
    const many = tableOf(`name\n${Array.from({ length: 3_000 }, (_, i) => `n${i}`).join('\n')}`);
    expect(problem({ table: many, column: 'name' })).toMatch(/more than 10000 layers/);
    const { edits, groups } = copyRows(scene, asked(FIRST), newId);
    const copied = copyRows(edited(scene, edits), asked(FIRST, { group: groups[1] }), newId);
    expect(copied.problem).toMatch(/itself a copy/);
  });
});
