import { describe, expect, test } from '@jest/globals';
import { joinWords, splitAnew, splitBox, splitWords, type Piece } from '.';
import { sceneSchema, type Scene } from '../../scene/scene';
import type { Layer } from '../../scene/layer';
import type { StageResult } from '../stage';
import { edited } from '../../testing/planning';
import { card, key, sceneOf } from '../../testing/scenes';

const source = { type: 'text', text: 'Moon', font: 'Spline Sans', weight: 500, size: 40, align: 'middle' } as const;
const word = card('w', {
  kind: 'word',
  source,
  look: { fill: '#f4ecdc' },
  rest: { 'position.x': 500, 'position.y': 300, 'size.x': 200, 'size.y': 48, rotation: 10 },
  tracks: { 'position.y': [key(0, 200), key(10, 300)] },
});
const pieces = (text: string): Piece[] =>
  [...text].map((letter, i) => ({ text: letter, left: 50 + i * 25, top: 0, width: 25, height: 48, baseline: 37 }));
const scene = sceneOf([card('below'), word, card('above')]);

function done(on: Scene, result: StageResult): Scene {
  if (!result.ok) throw new Error(result.message);
  const after = edited(on, result.edits);
  expect(sceneSchema.safeParse(after).error?.issues ?? []).toEqual([]);
  return after;
}

const message = (result: StageResult): string => (result.ok ? 'done' : result.message);
const partsOf = ({ layers }: Scene, group: string): Layer[] => layers.filter(({ parent }) => parent === group);

describe('words', () => {
  test('become a group with their id, place and keys, and a layer for each piece where it stood', () => {
    const split = done(scene, splitWords(scene, 'w', 'letters', pieces('Moon')));
    expect(split.layers.map(({ id }) => id)).toEqual(['below', 'w', 'w-p1', 'w-p2', 'w-p3', 'w-p4', 'above']);
    expect(split.layers[1]).toMatchObject({
      kind: 'group',
      rest: word.rest,
      tracks: word.tracks,
      source: { type: 'none' },
    });
    const [first, second] = partsOf(split, 'w');
    expect(first).toMatchObject({
      name: 'M',
      source: { text: 'M', align: 'left', size: 40 },
      look: { fill: '#f4ecdc' },
    });
    // Anchored in the middle of its baseline: 37 of 48 down.
    expect([first.rest['position.x'], first.rest['anchor.y']]).toEqual([62.5, 0.7708]);
    expect((first.rest['position.y'] ?? 0) - (first.rest['anchor.y'] ?? 0) * 48).toBeCloseTo(0, 9);
    expect(second.rest['position.x']).toBe(87.5);
  });

  test('split anew, parts keep their ids, keys and looks by place; new ones come, those left over go', () => {
    const split = done(scene, splitWords(scene, 'w', 'letters', pieces('Moon')));
    const keyed = edited(split, [
      { type: 'set-track', layer: 'w-p2', channel: 'opacity', keys: [key(0, 0), key(5, 1)] },
    ]);
    const longer = done(keyed, splitAnew(keyed, 'w', { ...source, text: 'Saturn' }, pieces('Saturn')));
    expect(
      partsOf(longer, 'w')
        .map(({ name }) => name)
        .join(''),
    ).toBe('Saturn');
    expect(partsOf(longer, 'w')[1].tracks.opacity).toHaveLength(2);
    expect(longer.layers.find(({ id }) => id === 'w')?.split?.source.text).toBe('Saturn');
    const shorter = done(longer, splitAnew(longer, 'w', { ...source, text: 'Sun' }, pieces('Sun')));
    expect(
      partsOf(shorter, 'w')
        .map(({ name }) => name)
        .join(''),
    ).toBe('Sun');
  });

  test('are joined again to what they were; what was changed is named and nothing is done', () => {
    const split = done(scene, splitWords(scene, 'w', 'letters', pieces('Moon')));
    const joined = done(split, joinWords(split, 'w', pieces('Moon')));
    const { split: gone, ...again } = joined.layers[1];
    expect([again, gone]).toEqual([word, null]);
    const keyed = edited(split, [{ type: 'set-track', layer: 'w-p2', channel: 'opacity', keys: [key(0, 0)] }]);
    expect(message(joinWords(keyed, 'w', pieces('Moon')))).toMatch(/^“o” was changed or has keys/);
    const moved = edited(split, [
      { type: 'set-layer', layer: 'w-p1', fields: { rest: { ...partsOf(split, 'w')[0].rest, 'position.x': 0 } } },
    ]);
    expect(message(joinWords(moved, 'w', pieces('Moon')))).toMatch(/“M” was changed/);
  });

  test('what cannot be split says why', () => {
    expect(message(splitWords(scene, 'above', 'letters', []))).toMatch(/Select words/);
    expect(message(splitWords(scene, 'w', 'words', pieces('M')))).toMatch(/only one of the words/);
    const spaced = sceneOf([{ ...word, tracks: { letterSpacing: [key(0, 0)] } }]);
    expect(message(splitWords(spaced, 'w', 'letters', pieces('Moon')))).toMatch(/letter spacing/);
    expect(message(splitAnew(scene, 'w', source, pieces('Moon')))).toMatch(/not made by splitting/);
    const counting = { ...source, text: '#', number: { decimals: 0, point: '.', group: '' } } as const;
    const counted = sceneOf([{ ...word, source: counting }]);
    expect(message(splitWords(counted, 'w', 'letters', pieces('12')))).toMatch(/shows a number/);
    expect(message(splitWords(scene, 'w', 'letters', pieces('x'.repeat(1_001))))).toMatch(
      /1001 layers, and at most 1000/,
    );
    expect(message(splitWords(scene, 'w', 'letters', pieces('x'.repeat(1_000))))).toBe('done');
    const split = done(scene, splitWords(scene, 'w', 'letters', pieces('Moon')));
    expect(message(splitAnew(split, 'w', source, []))).toMatch(/nothing to split/);
    expect(message(splitAnew(split, 'w', source, pieces('x'.repeat(1_001))))).toMatch(/1001 layers, and at most 1000/);
    const again = { ...split, layers: split.layers.map((layer) => (layer.id === 'w' ? word : layer)) };
    expect(message(splitWords(again, 'w', 'letters', pieces('Moon')))).toMatch(/split before/);
    expect(message(joinWords(scene, 'w', pieces('Moon')))).toMatch(/Select a group that words were split into/);
  });
});

describe('pictures and cards', () => {
  const picture = card('p', {
    kind: 'picture',
    source: { type: 'picture', href: `files/${'ab'.repeat(32)}.png`, width: 800, height: 400 },
    look: {},
    rest: { 'position.x': 500, 'position.y': 300, 'size.x': 300, 'size.y': 300, 'crop.x': 0.9, 'crop.zoom': 1.5 },
  });

  /** The stretch of the picture that a layer shows across, in its own px, as the painter works it out. */
  function shown({ rest }: Layer): [number, number] {
    const [w, h] = [rest['size.x'] ?? 0, rest['size.y'] ?? 0];
    const scale = Math.max(w / 800, h / 400) * (rest['crop.zoom'] ?? 1);
    const left = Math.min(800 - w / scale, Math.max(0, (rest['crop.x'] ?? 0.5) * 800 - w / scale / 2));
    return [left, left + w / scale];
  }

  test('columns of a picture show what they showed, side by side', () => {
    const on = sceneOf([picture]);
    const parts = partsOf(done(on, splitBox(on, 'p', 4, 2)), 'p');
    const [from, to] = shown(picture);
    const stretches = parts.slice(0, 4).map(shown);
    stretches.forEach(([left, right], i) => {
      expect(left).toBeCloseTo(from + ((to - from) * i) / 4, 6);
      expect(right).toBeCloseTo(from + ((to - from) * (i + 1)) / 4, 6);
    });
    expect(parts.map(({ rest }) => [rest['position.x'], rest['position.y']])).toEqual(
      [75, 225].flatMap((y) => [37.5, 112.5, 187.5, 262.5].map((x) => [x, y])),
    );
  });

  test('rows of a picture show what they showed, one below the other', () => {
    const tall = { ...picture, source: { ...picture.source, width: 400, height: 800 } as Layer['source'] };
    const low = { ...tall, rest: { ...tall.rest, 'crop.x': 0.5, 'crop.y': 0.2 } };
    const on = sceneOf([low]);
    const parts = partsOf(done(on, splitBox(on, 'p', 2, 3)), 'p');
    /** The stretch that a layer shows down, in px of the picture, as the painter works it out. */
    const shownDown = ({ rest }: Layer): [number, number] => {
      const [w, h] = [rest['size.x'] ?? 0, rest['size.y'] ?? 0];
      const scale = Math.max(w / 400, h / 800) * (rest['crop.zoom'] ?? 1);
      const top = Math.min(800 - h / scale, Math.max(0, (rest['crop.y'] ?? 0.5) * 800 - h / scale / 2));
      return [top, top + h / scale];
    };
    const [from, to] = shownDown(low);
    [0, 2, 4].forEach((place, i) => {
      const [top, bottom] = shownDown(parts[place]);
      expect(top).toBeCloseTo(from + ((to - from) * i) / 3, 6);
      expect(bottom).toBeCloseTo(from + ((to - from) * (i + 1)) / 3, 6);
    });
  });

  test('a plain card is split; what would show in every part is refused', () => {
    const on = sceneOf([card('c'), card('r', { rest: { corner: 8 } }), card('e', { source: { type: 'ellipse' } })]);
    expect(partsOf(done(on, splitBox(on, 'c', 2, 1)), 'c').map(({ name }) => name)).toEqual(['c 1.1', 'c 1.2']);
    expect(message(splitBox(on, 'r', 2, 1))).toMatch(/round corners/);
    const crop = sceneOf([{ ...picture, tracks: { 'crop.x': [key(0, 0)] } }]);
    expect(message(splitBox(crop, 'p', 2, 1))).toMatch(/has keys for its crop/);
    const unsized = sceneOf([{ ...picture, source: { type: 'picture', href: `files/${'cd'.repeat(32)}.png` } }]);
    expect(message(splitBox(unsized, 'p', 2, 1))).toMatch(/size of the picture in “p” is not known/);
    const left = sceneOf([card('c'), card('c-c2')]);
    expect(message(splitBox(left, 'c', 2, 1))).toMatch(/split before/);
    const gradient = { fill: { from: '#000000', to: '#ffffff', angle: 0 } };
    for (const look of [{ fill: '#ffffff', stroke: '#000000' }, gradient])
      expect(message(splitBox(sceneOf([card('c', { look })]), 'c', 2, 1))).toMatch(/Take these away first/);
    expect(message(splitBox(on, 'e', 2, 1))).toMatch(/picture or a plain card/);
    for (const [columns, rows] of [
      [1, 1],
      [0, 4],
      [4, 0],
      [-2, -2],
      [1_001, 1],
      [7, 143],
    ])
      expect(message(splitBox(on, 'c', columns, rows))).toMatch(/between 2 and 1000/);
  });

  test('one column of rows, one row of columns and as many parts as may be stand where the card stood', () => {
    const on = sceneOf([card('c', { tags: ['row', 'part'], rest: { 'size.x': 100, 'size.y': 60, 'fill.l': 0.4 } })]);
    const places = (columns: number, rows: number) =>
      partsOf(done(on, splitBox(on, 'c', columns, rows)), 'c').map(({ rest }) => [
        rest['position.x'],
        rest['position.y'],
      ]);
    expect(places(1, 3)).toEqual([
      [50, 10],
      [50, 30],
      [50, 50],
    ]);
    expect(places(2, 1)).toEqual([
      [25, 30],
      [75, 30],
    ]);
    expect(places(1_000, 1)).toHaveLength(1_000);
    const [part] = partsOf(done(on, splitBox(on, 'c', 1, 3)), 'c');
    expect(part).toMatchObject({
      name: 'c 1.1',
      tags: ['row', 'part'],
      rest: { 'size.x': 100, 'size.y': 20, 'fill.l': 0.4 },
    });
    expect(message(splitBox(done(on, splitBox(on, 'c', 1, 3)), 'c', 1, 3))).toMatch(/picture or a plain card/);
  });
});
