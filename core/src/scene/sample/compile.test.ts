import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { CHANNEL_COUNT, CHANNELS } from '../../basics/channel';
import { restValue, type Layer } from '../layer';
import { card, sceneOf } from '../../testing/scenes';
import { compileScene } from './compile';

/** Rest values and parents of layers as they are defined, one by one. */
function slowly(layers: readonly Layer[]) {
  return {
    rest: layers.flatMap((layer) => CHANNELS.map(({ id }) => restValue(layer, id))),
    parents: layers.map(({ parent }) => layers.findIndex(({ id }) => id === parent)),
  };
}

let made = 0;

interface Change {
  readonly place: number;
  readonly what: 'rest' | 'look' | 'parent' | 'swap' | 'keys' | 'add' | 'remove';
  readonly to: number;
  readonly value: number;
}

/** One change of one layer of a few: where it rests, how it looks, what it is in, or another one in its place. */
const change: fc.Arbitrary<Change> = fc.record({
  place: fc.nat(5),
  what: fc.constantFrom('rest', 'look', 'parent', 'swap', 'keys', 'add', 'remove'),
  to: fc.nat(5),
  value: fc.integer({ min: -500, max: 500 }),
});

function changed(layers: readonly Layer[], { place, what, to, value }: Change): Layer[] {
  const all = [...layers];
  const [index, other] = [place % all.length, to % all.length];
  const layer = all[index];
  if (what === 'rest') all[index] = { ...layer, rest: { ...layer.rest, 'position.x': value } };
  if (what === 'look') all[index] = { ...layer, look: { ...layer.look, fill: `hsl(${(value + 500) % 360} 40% 50%)` } };
  if (what === 'parent' && other < index && all[other].parent === null)
    all[index] = { ...layer, parent: all[other].id };
  if (what === 'swap') [all[index], all[other]] = [all[other], all[index]];
  if (what === 'keys') all[index] = { ...layer, tracks: {} };
  if (what === 'add') all.push(card(`new-${++made}`));
  if (what === 'remove' && all.length > 2) all.splice(index, 1);
  return all;
}

describe('what was worked out before', () => {
  test('never changes what a scene compiles to, whatever was changed in between', () => {
    fc.assert(
      fc.property(fc.array(change, { minLength: 1, maxLength: 12 }), (changes) => {
        let layers: Layer[] = ['a', 'b', 'c', 'd'].map((id) => card(id));
        for (const one of changes) {
          layers = changed(layers, one);
          const compiled = compileScene(sceneOf(layers));
          const wanted = slowly(layers);
          expect([...compiled.rest]).toEqual(wanted.rest);
          expect([...compiled.parents]).toEqual(wanted.parents);
          const places = new Map([...compiled.order].map((index, at) => [index, at]));
          expect(places.size).toBe(layers.length);
          wanted.parents.forEach((parent, index) => {
            if (parent >= 0) expect(places.get(parent) as number).toBeLessThan(places.get(index) as number);
          });
        }
      }),
    );
  });

  test('stays as it was for the scene that it was worked out for', () => {
    const layers = ['a', 'b', 'c'].map((id) => card(id));
    const before = compileScene(sceneOf(layers));
    const rest = [...before.rest];
    const moved = compileScene(
      sceneOf([layers[0], { ...layers[1], rest: { ...layers[1].rest, 'position.y': 7 } }, layers[2]]),
    );
    expect([...before.rest]).toEqual(rest);
    expect([...moved.rest].filter((value, i) => value !== rest[i])).toEqual([7]);
    expect(moved.rest.length).toBe(3 * CHANNEL_COUNT);
  });
});
