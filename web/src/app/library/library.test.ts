import { describe, expect, test } from '@jest/globals';
import { createShelf, STARTER_LIBRARY, STARTER_PRESETS, type LibraryEntry } from '@wexikine/core';
import { ghostsOf } from '../drawing/ghosts';
import { createSpecimen } from '../drawing/specimen';
import { SPECIMEN_KINDS } from '../drawing/specimen-layers';
import { countFacets, narrow, NO_FACETS, type FacetName, type Personal } from './facets';
import { rowsOf, sortRows } from './rows';
import { createSearch } from './search';

const search = createSearch(STARTER_LIBRARY);
const shelf = createShelf(STARTER_LIBRARY);
const NOBODY: Personal = { favourites: [], recent: [] };

function entryOf(item: LibraryEntry['item'], more: Partial<LibraryEntry> = {}): LibraryEntry {
  return { item, draft: null, draftVersion: 0, uses: { scenes: 0, layers: 0 }, ...more };
}

describe('search', () => {
  test.each([
    ['settle', 'rise-and-settle'],
    ['setle', 'rise-and-settle'],
    ['five pop', 'pop-in-five-steps'],
    ['letterspacing', 'letters-open'],
    ['edge right', 'slide-from-right-edge'],
    ['house lamplight', 'house-lamplight'],
    ['14f', 'house-steady'],
    ['easing overshoot', 'curve-overshoot'],
  ])('“%s” finds %s', (query, id) => {
    expect(search(query).map((item) => item.id)).toContain(id);
  });

  test('nothing typed gives everything, nonsense nothing', () => {
    expect(search(' ')).toBe(STARTER_LIBRARY);
    expect(search('zzzzqq')).toEqual([]);
  });
});

describe('rows', () => {
  const [a, b, c] = STARTER_PRESETS;
  const entries = [
    entryOf({ ...a, name: 'B 10', when: '2026-01-01T00:00:00.000Z' }),
    entryOf({ ...b, name: 'B 9', when: '2026-03-01T00:00:00.000Z' }, { uses: { scenes: 1, layers: 3 } }),
    entryOf({ ...c, name: 'A', when: '2026-02-01T00:00:00.000Z' }, { draft: { ...c, state: 'in review' } }),
  ];
  const rows = rowsOf(entries);

  test('are sorted by use, by name as people count, and by age', () => {
    const names = (sort: 'use' | 'name' | 'newest') => sortRows(rows, sort).map(({ item }) => item.name);
    expect(names('use')).toEqual(['B 9', 'A', 'B 10']);
    expect(names('name')).toEqual(['A', 'B 9', 'B 10']);
    expect(names('newest')).toEqual(['B 9', 'A', 'B 10']);
  });

  test('of published items with a draft stand in both states', () => {
    expect(rows[2].states).toEqual(['published', 'in review']);
  });
});

describe('facets', () => {
  const items = STARTER_LIBRARY.map((item, i) => ({
    ...item,
    state: i % 9 === 0 ? ('retired' as const) : item.state,
    collection: i % 4 === 0 ? 'House' : null,
  }));
  const rows = rowsOf(items.map((item) => entryOf(item)));
  const personal: Personal = { favourites: ['fade-in', 'nod'], recent: ['nod'] };

  test('count exactly what a click would show, whatever else is chosen', () => {
    for (const facets of [NO_FACETS, { ...NO_FACETS, phase: 'exit' as const }, { ...NO_FACETS, tag: 'calm' }]) {
      const counts = countFacets(rows, facets, personal);
      for (const name of Object.keys(counts) as FacetName[]) {
        for (const { value, count } of counts[name]) {
          expect([name, value, narrow(rows, { ...facets, [name]: value }, personal).length]).toEqual([
            name,
            value,
            count,
          ]);
        }
      }
    }
  });

  test('leave retired items out until they are asked for', () => {
    const retired = items.filter(({ state }) => state === 'retired').length;
    expect(narrow(rows, NO_FACETS, NOBODY)).toHaveLength(rows.length - retired);
    expect(narrow(rows, { ...NO_FACETS, state: 'retired' }, NOBODY)).toHaveLength(retired);
  });

  test('know favourites and what was opened last', () => {
    const own = { ...NO_FACETS, mine: 'favourites' as const };
    expect(narrow(rows, own, personal).map(({ id }) => id)).toEqual(['fade-in', 'nod']);
    expect(narrow(rows, own, NOBODY)).toEqual([]);
  });
});

describe('specimens', () => {
  test.each(STARTER_PRESETS.map((item) => [item.name, item] as const))(
    '%s is shown in motion on everything',
    (_, item) => {
      for (const kind of SPECIMEN_KINDS) {
        const specimen = createSpecimen(item, shelf, { kind });
        expect(specimen.to).toBeGreaterThan(specimen.from);
        expect(specimen.layers).toHaveLength(kind === 'row' ? 12 : 1);
        for (const { alpha, share } of ghostsOf(specimen)) {
          expect(alpha).toBeGreaterThan(0);
          expect(share).toBeGreaterThanOrEqual(0);
          expect(share).toBeLessThanOrEqual(1);
        }
      }
      const shown = createSpecimen(item, shelf);
      expect(Object.keys(shown.scene.layers[0].tracks).length).toBeGreaterThan(0);
    },
  );

  test('parameters that are tried change what is shown', () => {
    const item = shelf.preset('bump');
    if (!item) throw new Error();
    const peak = (swell: string) =>
      createSpecimen(item, shelf, { parameters: { swell } }).scene.layers[0].tracks['scale.x']?.[1].value;
    expect([peak('10%'), peak('50%')]).toEqual([1.1, 1.5]);
  });

  test('a preset with a wrong formula is shown without what is wrong', () => {
    const item = shelf.preset('rise-and-settle');
    if (!item) throw new Error();
    const [first, ...rest] = item.body.rows;
    const cells = first.cells.map((cell, i) => (i === 1 ? { ...cell, value: 'rest + 3deg' } : cell));
    const broken = { ...item, body: { ...item.body, rows: [{ ...first, cells }, ...rest] } };
    const { scene } = createSpecimen(broken, shelf);
    expect(scene.layers[0].tracks['position.y']).toHaveLength(first.cells.length - 1);
    expect(scene.layers[0].tracks.opacity).toHaveLength(2);
  });
});
