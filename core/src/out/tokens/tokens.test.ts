import { describe, expect, test } from '@jest/globals';
import {
  frontOf,
  itemRecordSchema,
  recordOf,
  type HouseItem,
  type ItemRecord,
  type PaletteItem,
} from '../../library/library';
import { STARTER_LIBRARY } from '../../library/starter';
import { planTokens, readTokens, writeTokens, type TokenValue } from '.';

const PAL = { num: 25, den: 1 };
const CONTEXT = { by: 'Ada', when: '2026-01-01T00:00:00.000Z', file: 'tokens.json' };

/** Examples as the Design Tokens Format Module 2025.10 gives them for these types (written down from memory). */
const PUBLISHED = {
  'Duration-Quick': { $value: { value: 100, unit: 'ms' }, $type: 'duration' },
  'Duration-Long': { $value: { value: 1.5, unit: 's' }, $type: 'duration' },
  Accelerate: { $value: [0.5, 0, 1, 1], $type: 'cubicBezier' },
  Decelerate: { $value: [0, 0, 0.5, 1], $type: 'cubicBezier' },
  'line-height-large': { $value: 2.3, $type: 'number' },
  'Hot pink': {
    $type: 'color',
    $value: { colorSpace: 'srgb', components: [1, 0, 1], alpha: 1, hex: '#ff00ff' },
  },
  'Translucent shadow': {
    $type: 'color',
    $value: { colorSpace: 'srgb', components: [0, 0, 0], alpha: 0.5, hex: '#000000' },
  },
};

function tokensOf(data: unknown): readonly TokenValue[] {
  const result = readTokens(JSON.stringify(data));
  if (!result.ok) throw new Error(result.message);
  return result.tokens;
}

function itemsOf(records: readonly ItemRecord[]): HouseItem[] {
  return records.map(frontOf).filter((item): item is HouseItem => item.kind === 'house');
}

/** Reads a file into an empty library and writes it out again. */
function roundTrip(data: unknown): unknown {
  const { writes } = planTokens(tokensOf(data), [], CONTEXT);
  return JSON.parse(writeTokens(itemsOf(writes), PAL).text);
}

describe('design tokens', () => {
  test('the format’s own examples are read and written back as they are', () => {
    expect(roundTrip(PUBLISHED)).toEqual(PUBLISHED);
  });

  test('groups give their types and names to what is in them; descriptions, aliases and extensions stay', () => {
    const data = {
      motion: {
        $type: 'duration',
        $description: 'of the group',
        base: { $value: { value: 200, unit: 'ms' }, $description: 'Most things take this long.' },
        calm: { long: { $value: { value: 2, unit: 's' }, $extensions: { 'com.example.tool': { locked: true } } } },
        standard: { $value: '{motion.base}' },
      },
    };
    expect(roundTrip(data)).toEqual({
      motion: {
        base: { $type: 'duration', $value: { value: 200, unit: 'ms' }, $description: 'Most things take this long.' },
        calm: {
          long: {
            $type: 'duration',
            $value: { value: 2, unit: 's' },
            $extensions: { 'com.example.tool': { locked: true } },
          },
        },
        standard: { $type: 'duration', $value: '{motion.base}' },
      },
    });
  });

  test('an alias by pointer, a group’s own value and a deprecated token are understood', () => {
    const tokens = tokensOf({
      ease: { $type: 'cubicBezier', $root: { $value: [0.2, 0, 0, 1] }, soft: { $ref: '#/ease/$root' } },
      old: { $type: 'number', $value: 3, $deprecated: 'use something else' },
    });
    expect(
      tokens.map(({ groups, name, aliasOf, deprecated }) => [groups.join('.'), name, aliasOf, deprecated]),
    ).toEqual([
      ['ease', '$root', null, false],
      ['ease', 'soft', 'ease.$root', false],
      ['', 'old', null, true],
    ]);
    expect(tokens[1].value).toEqual(tokens[0].value);
  });

  test.each([
    ['display-p3', [1, 0.5, 0.2]],
    ['oklch', [0.7, 0.15, 230]],
    ['oklab', [0.6, 0.1, -0.1]],
    ['lab', [50, 20, -30]],
    ['hsl', [330, 100, 50]],
    ['hwb', [120, 10, 20]],
    ['srgb-linear', [0.2, 'none', 1]],
    ['xyz-d65', [0.3, 0.4, 0.5]],
    ['rec2020', [0.1, 0.2, 0.3]],
    ['prophoto-rgb', [0.1, 0.2, 0.3]],
    ['a98-rgb', [0.1, 0.2, 0.3]],
  ])('a colour in %s keeps its space and its components', (colorSpace, components) => {
    const data = { c: { $type: 'color', $value: { colorSpace, components, alpha: 0.25 } } };
    expect(roundTrip(data)).toMatchObject(data);
  });

  test('the older form of colours, as hexadecimal text, is read too', () => {
    const [token] = tokensOf({ c: { $type: 'color', $value: '#FF8800' } });
    expect(token.value).toEqual({ type: 'colour', value: '#ff8800' });
    const named = readTokens(JSON.stringify({ c: { $type: 'color', $value: 'orange' } }));
    expect(named).toMatchObject({ ok: true, tokens: [], skipped: [{ path: 'c' }] });
  });

  describe('palettes', () => {
    const palettes = STARTER_LIBRARY.filter((item): item is PaletteItem => item.kind === 'palette');
    const { text } = writeTokens([], PAL, palettes);
    const readBack = (file: string) => {
      const read = readTokens(file);
      if (!read.ok) throw new Error(read.message);
      return read;
    };

    test('are groups of colours and ramps, and come back as what they were', () => {
      const tree = JSON.parse(text) as Record<string, Record<string, Record<string, unknown>>>;
      const night = tree['palette Night over the marsh'];
      expect(night['lamp']).toMatchObject({ $type: 'color' });
      expect(Object.keys(night['ink to paper'])).toEqual(['1', '2', '3', '4', '5', '6', '7']);
      const read = readBack(text);
      expect([read.tokens, read.skipped]).toEqual([[], []]);
      expect(read.palettes.map(({ name, note, value }) => [name, note, value])).toEqual(
        palettes.map(({ name, note, body }) => [name, note, body]),
      );
    });

    test('are retired where the file says so of their group, in words or plainly', () => {
      const retired = (deprecated?: unknown) => {
        const tree = JSON.parse(text) as Record<string, Record<string, unknown>>;
        if (deprecated !== undefined) tree['palette Night over the marsh']['$deprecated'] = deprecated;
        const found = readBack(JSON.stringify(tree)).palettes;
        return found.find(({ name }) => name === 'Night over the marsh')?.deprecated;
      };
      expect([retired(), retired(false), retired(true), retired('Use another one.')]).toEqual([
        false,
        false,
        true,
        true,
      ]);
    });

    test('with names and an order that the format would change', () => {
      const body = {
        colours: ['10', '2', 'a.b', '{c}'].map((name, i) => ({ name, colour: `#00000${i}` })),
        ramps: [{ name: 'x.y', through: ['10', 'a.b'], steps: 3 }],
      };
      const written = writeTokens([], PAL, [{ ...palettes[0], body }]).text;
      expect(readBack(written).palettes[0].value).toEqual(body);
    });

    test('are the same, changed or new in a library, and a change is a new revision of them', () => {
      const here = palettes.map(recordOf);
      const read = readBack(text);
      const same = planTokens(read.tokens, here, CONTEXT, read.palettes);
      expect(same.changes.map(({ status }) => status)).toEqual(palettes.map(() => 'same'));
      expect(same.writes).toEqual([]);
      const fresh = planTokens([], [], CONTEXT, read.palettes);
      expect(fresh.changes.map(({ status }) => status)).toEqual(palettes.map(() => 'new'));
      expect(fresh.writes.map((record) => itemRecordSchema.safeParse(record).error?.issues ?? [])).toEqual(
        palettes.map(() => []),
      );
      const [first] = read.palettes;
      const bluer = {
        ...first,
        value: {
          ...first.value,
          colours: first.value.colours.map((one, i) => (i === 0 ? { ...one, colour: '#0000ff' } : one)),
        },
      };
      const changed = planTokens([], here, CONTEXT, [bluer]);
      expect(changed.writes.map(({ id, revisions }) => [id, revisions.length])).toEqual([
        [palettes[0].id, palettes[0].revision + 1],
      ]);
    });

    test('that are none are told', () => {
      const tree = JSON.parse(text) as Record<string, Record<string, unknown>>;
      const group = tree['palette Night over the marsh'];
      group['lamp'] = { $type: 'color', $value: { colorSpace: 'unknown', components: [1, 1, 1] } };
      const { skipped } = readBack(JSON.stringify(tree));
      expect(skipped).toEqual([
        { path: 'palette Night over the marsh', why: 'in “lamp” the colour space unknown is not known here' },
      ]);
    });
  });

  test('frames are written in milliseconds, and come back as frames', () => {
    const house = itemsOf(STARTER_LIBRARY.map(recordOf));
    const { text, skipped } = writeTokens(house, PAL);
    expect(skipped).toEqual([]);
    expect(JSON.parse(text)).toMatchObject({ steady: { $type: 'duration', $value: { value: 560, unit: 'ms' } } });
    expect(tokensOf(JSON.parse(text)).map(({ value }) => value)).toEqual(house.map(({ body }) => body));
  });

  test('what cannot be a house value is skipped and told, each for its own reason', () => {
    const result = readTokens(
      JSON.stringify({
        size: { $type: 'dimension', $value: { value: 4, unit: 'px' } },
        untyped: { $value: 4 },
        neg: { $type: 'duration', $value: { value: -4, unit: 'ms' } },
        bez: { $type: 'cubicBezier', $value: [2, 0, 0, 1] },
        space: { $type: 'color', $value: { colorSpace: 'cmyk', components: [1, 0, 0] } },
        a: { $type: 'number', $value: '{b}' },
        b: { $type: 'number', $value: '{a}' },
        lost: { $type: 'number', $value: '{nowhere}' },
        text: { $type: 'number', $value: 'four' },
        good: { $type: 'number', $value: 4 },
      }),
    );
    if (!result.ok) throw new Error(result.message);
    expect(result.tokens.map(({ name }) => name)).toEqual(['good']);
    expect(result.skipped.map(({ path, why }) => `${path}: ${why}`)).toEqual([
      'size: the type dimension is not a house value',
      'untyped: it has no $type, and no group around it has one',
      'neg: its duration needs a value of 0 or more and the unit ms or s',
      'bez: its cubicBezier needs four numbers, the first and third from 0 to 1',
      'space: the colour space cmyk is not known here',
      'a: it is an alias in a circle, back to a',
      'b: it is an alias in a circle, back to a',
      'lost: it is an alias of nowhere, which is not in the file',
      'text: its number is not a number',
    ]);
  });

  test.each(['', '[]', '3', '{}', '{"a":{"b":{}}}'])('a file that holds %s is refused with a sentence', (text) => {
    expect(readTokens(text)).toMatchObject({ ok: false, message: expect.stringMatching(/^This .*\.$/) });
  });

  test('curves that are no Bézier are left out and told', () => {
    const [base] = itemsOf(STARTER_LIBRARY.map(recordOf));
    const spring: HouseItem = {
      ...base,
      name: 'springy',
      body: { type: 'curve', value: { type: 'spring', damping: 0.4, within: 0.01 } },
    };
    expect(writeTokens([spring], PAL).skipped).toEqual([
      { path: 'springy', why: 'the format has only cubic Béziers for curves' },
    ]);
  });

  test('a file read again changes nothing, and a changed one makes new revisions', () => {
    const first = planTokens(tokensOf(PUBLISHED), [], CONTEXT);
    expect(first.changes.every(({ status }) => status === 'new')).toBe(true);
    const again = planTokens(tokensOf(PUBLISHED), first.writes, CONTEXT);
    expect(again.writes).toEqual([]);
    const slower = { ...PUBLISHED, 'Duration-Quick': { $value: { value: 120, unit: 'ms' }, $type: 'duration' } };
    const third = planTokens(tokensOf(slower), first.writes, CONTEXT);
    expect(third.changes.filter(({ status }) => status === 'changed').map(({ path }) => path)).toEqual([
      'Duration-Quick',
    ]);
    const other = { Accelerate: { $type: 'number', $value: 3 } };
    const refused = planTokens(tokensOf(other), first.writes, CONTEXT);
    expect([refused.writes, refused.refused[0].why]).toEqual([
      [],
      'it is a number there and a curve here; give one of them another name',
    ]);
    expect(third.writes[0].revisions.map(({ revision, summary }) => [revision, summary])).toEqual([
      [1, 'From tokens.json.'],
      [2, 'From tokens.json.'],
    ]);
  });

  test('what stands under a name that the format keeps for itself is no token', () => {
    const data = {
      $extensions: { 'com.example.tool': { $type: 'number', $value: 3 } },
      $description: 'Of all.',
      scale: { $extensions: { hidden: { $type: 'number', $value: 4 } }, large: { $type: 'number', $value: 5 } },
    };
    expect(tokensOf(data).map(({ groups, name }) => [...groups, name])).toEqual([['scale', 'large']]);
  });

  test('groups within groups are a collection whose name says both', () => {
    const data = { space: { wide: { gap: { $type: 'number', $value: 3 } } }, alone: { $type: 'number', $value: 1 } };
    const { writes } = planTokens(tokensOf(data), [], CONTEXT);
    expect(writes.map(({ id, collection }) => [id, collection])).toEqual([
      ['space-wide-gap', 'space / wide'],
      ['alone', null],
    ]);
  });

  test('tokens that would have one id get numbers after it, also where it is taken', () => {
    const named = (...names: string[]) =>
      tokensOf(Object.fromEntries(names.map((name, i) => [name, { $type: 'number', $value: i }])));
    const { writes } = planTokens(named('Long stop', 'Long-stop', 'Long: stop', 'Other'), [], CONTEXT);
    expect(writes.map(({ id }) => id)).toEqual(['Long-stop', 'Long-stop-2', 'Long-stop-3', 'Other']);
    const later = planTokens(named('Long; stop'), writes.slice(0, 2), CONTEXT);
    expect(later.writes.map(({ id }) => id)).toEqual(['Long-stop-3']);
  });
});
