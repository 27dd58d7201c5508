import { describe, expect, test } from '@jest/globals';
import { createShelf, STARTER_LIBRARY } from '@wexikine/core';
import { ghostsOf } from '../drawing/ghosts';
import { createSpecimen } from '../drawing/specimen';
import { countFamilies, countPhases, familiesOf, matchesFacets } from './facets';
import { createSearch } from './search';

const search = createSearch(STARTER_LIBRARY);
const shelf = createShelf(STARTER_LIBRARY);

describe('search', () => {
  test.each([
    ['settle', 'rise-and-settle'],
    ['setle', 'rise-and-settle'],
    ['five pop', 'pop-in-five-steps'],
    ['letterspacing', 'letters-open'],
    ['edge right', 'slide-from-right-edge'],
  ])('“%s” finds %s', (query, id) => {
    expect(search(query).map((item) => item.id)).toContain(id);
  });

  test('nothing typed gives everything, nonsense nothing', () => {
    expect(search(' ')).toBe(STARTER_LIBRARY);
    expect(search('zzzzqq')).toEqual([]);
  });
});

describe('facets', () => {
  test('count what a click would show', () => {
    const none = { phase: null, family: null };
    for (const { value, count } of countPhases(STARTER_LIBRARY, none)) {
      expect(STARTER_LIBRARY.filter((item) => matchesFacets(item, { ...none, phase: value }))).toHaveLength(count);
    }
    for (const { value, count } of countFamilies(STARTER_LIBRARY, { ...none, phase: 'exit' })) {
      const shown = STARTER_LIBRARY.filter((item) => item.body.phase === 'exit' && familiesOf(item).includes(value));
      expect(shown).toHaveLength(count);
    }
  });
});

describe('specimens', () => {
  test.each(STARTER_LIBRARY.map((item) => [item.name, item] as const))('%s is shown in motion', (_, item) => {
    const specimen = createSpecimen(item);
    expect(specimen.to).toBeGreaterThan(specimen.from);
    expect(Object.keys(specimen.scene.layers[0].tracks).length).toBeGreaterThan(0);
    for (const { alpha, share } of ghostsOf(specimen)) {
      expect(alpha).toBeGreaterThan(0);
      expect(share).toBeGreaterThanOrEqual(0);
      expect(share).toBeLessThanOrEqual(1);
    }
  });

  test('parameters that are tried change what is shown', () => {
    const item = shelf.get('bump');
    if (!item) throw new Error();
    const peak = (swell: string) => createSpecimen(item, { swell }).scene.layers[0].tracks['scale.x']?.[1].value;
    expect([peak('10%'), peak('50%')]).toEqual([1.1, 1.5]);
  });
});
