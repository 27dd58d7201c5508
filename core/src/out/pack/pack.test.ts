import { describe, expect, test } from '@jest/globals';
import { strToU8, zipSync, type Zippable } from 'fflate';
import { canonicalJson } from '../export';
import { frontOf, itemRecordSchema, recordOf, referencesOf, type ItemRecord } from '../../library/library';
import { STARTER_LIBRARY, STARTER_RIGS } from '../../library/starter';
import { createMultiply, createRigRecipe, createStyle, type Recipe } from '../../scene/recipe';
import { describePackProblem, planImport, readPack, withNeeds, writePack } from '.';

const starter: readonly ItemRecord[] = STARTER_LIBRARY.map(recordOf);

function recordFor(id: string): ItemRecord {
  return starter.find((record) => record.id === id) as ItemRecord;
}

function read(bytes: Uint8Array): readonly ItemRecord[] {
  const result = readPack(bytes);
  if (!result.ok) throw new Error(result.problems.map(describePackProblem).join('\n'));
  return result.records;
}

function withName(record: ItemRecord, name: string): ItemRecord {
  return { ...record, revisions: record.revisions.map((revision) => ({ ...revision, name })) } as ItemRecord;
}

/** A further revision of an item. */
function revised(record: ItemRecord, summary: string): ItemRecord {
  const newest = record.revisions[record.revisions.length - 1];
  const next = { ...newest, revision: newest.revision + 1, summary };
  return { ...record, revisions: [...record.revisions, next] } as ItemRecord;
}

describe('a pack', () => {
  test('written and read is the same items, and the same items always give the same bytes', () => {
    const bytes = writePack(starter);
    const sorted = [...starter].sort((a, b) => (a.id < b.id ? -1 : 1));
    expect(canonicalJson(read(bytes))).toBe(canonicalJson(sorted));
    expect(writePack([...starter].reverse())).toEqual(bytes);
    expect(starter.map((record) => itemRecordSchema.safeParse(record).success)).not.toContain(false);
  });

  test('takes along what its items need to be computed, but not what they are only linked to', () => {
    expect(withNeeds(starter, ['fade-in-and-out']).sort()).toEqual(['fade-in-and-out', 'house-steady']);
    expect(withNeeds(starter, ['pop-exit']).sort()).toEqual(['curve-arrive', 'curve-soft', 'pop-exit']);
    expect(withNeeds(starter, ['nobody'])).toEqual([]);
  });
});

describe('importing', () => {
  test('into an empty library brings everything, into the same one nothing', () => {
    const plan = planImport([], starter);
    expect(plan.report.problems).toEqual([]);
    expect(plan.writes).toEqual(starter);
    const again = planImport(starter, starter);
    expect(new Set(again.report.entries.map(({ status }) => status))).toEqual(new Set(['same']));
    expect(again.writes).toEqual([]);
  });

  test('adds newer revisions after those that are here, and leaves older packs alone', () => {
    const old = recordFor('fade-in');
    const newer = revised(old, 'slower');
    const plan = planImport(starter, [newer]);
    expect(plan.report.entries[0]).toMatchObject({ status: 'newer', facts: 'r1 → r2' });
    expect(plan.writes).toEqual([newer]);
    const back = planImport([newer], [old]);
    expect(back.report.entries[0]).toMatchObject({ status: 'older', facts: 'here is r2' });
    expect(back.writes).toEqual([]);
  });

  test('asks about what both have and is different: keep, take as a new revision, or have both', () => {
    const mine = revised(recordFor('curve-soft'), 'mine');
    const theirs = revised(withName(recordFor('curve-soft'), 'Softer'), 'theirs');
    const user = recordFor('bump');
    const entry = planImport([...starter.filter(({ id }) => id !== mine.id), mine], [theirs, user]).report.entries[0];
    expect(entry).toMatchObject({ status: 'conflict', facts: 'r1 is another one here' });
    const here = [...starter.filter(({ id }) => id !== mine.id && id !== 'bump'), mine];
    const choose = (choice: 'keep' | 'take' | 'both'): readonly ItemRecord[] =>
      planImport(here, [theirs, user], { 'curve-soft': choice }, () => 'copy-1').writes;
    expect(choose('keep').map(({ id }) => id)).toEqual(['bump']);
    const [taken] = choose('take');
    expect(taken.revisions.map(({ summary }) => summary)).toEqual(['First published.', 'mine', 'From a pack: theirs']);
    const [copy, bump] = choose('both');
    expect([copy.id, frontOf(copy).name]).toEqual(['copy-1', 'Softer (from a pack)']);
    expect(JSON.stringify(bump)).toContain('"id":"copy-1"');
    expect(JSON.stringify(bump)).not.toContain('curve-soft');
  });

  test('what refers to an item that comes as a copy refers to the copy, wherever an item may name another', () => {
    const recipe = (id: string, body: Recipe): ItemRecord => {
      const [revision] = recordFor('fade-in').revisions;
      return { ...recordFor('fade-in'), kind: 'recipe', id, revisions: [{ ...revision, body }] } as ItemRecord;
    };
    const pick = { by: 'rule', kind: 'card' } as const;
    const looks = STARTER_LIBRARY.filter(({ kind }) => kind === 'look').map(({ id }) => id);
    const palettes = STARTER_LIBRARY.filter(({ kind }) => kind === 'palette').map(({ id }) => id);
    const more = [
      recipe('uses-rig', createRigRecipe(STARTER_RIGS[0].id, pick)),
      recipe('uses-look', { ...createStyle(pick), from: { by: 'look', id: looks[0] } }),
      recipe('uses-palette', {
        ...createStyle(pick),
        vary: { fill: { by: 'palette', id: palettes[0], how: 'turns' } },
      }),
      recipe('uses-presets', {
        ...createMultiply(pick),
        in: {
          length: '12f',
          presets: [
            { id: 'fade-in', weight: 1 },
            { id: 'pop-exit', weight: 1 },
          ],
        },
      }),
    ];
    const steady = recordFor('house-steady');
    const following = { ...steady.revisions[0], body: { ...(steady.revisions[0].body as object), as: steady.id } };
    const follower = { ...steady, id: 'house-follower', revisions: [following] } as ItemRecord;
    const all = [...starter, ...more, follower];
    const references = (record: ItemRecord) =>
      referencesOf({ kind: record.kind, body: record.revisions[record.revisions.length - 1].body } as never);
    const uses = new Set<string>();
    for (const record of all) {
      for (const { id } of references(record)) {
        const theirs = revised(withName(recordFor(id), 'Theirs'), 'theirs');
        const here = [...all.filter((one) => one.id !== id && one.id !== record.id), revised(recordFor(id), 'mine')];
        const { writes, report } = planImport(here, [theirs, record], { [id]: 'both' }, () => 'copy');
        expect(report.problems).toEqual([]);
        const written = writes.find((one) => one.id === record.id) as ItemRecord;
        const wanted = references(record).map((one) => (one.id === id ? { ...one, id: 'copy' } : one));
        expect(references(written)).toEqual(wanted);
        wanted.forEach(({ use }) => uses.add(use));
      }
    }
    expect([...uses].sort()).toEqual(
      ['default', 'easing', 'follows', 'look', 'matches', 'palette', 'preset', 'rig'].sort(),
    );
  });

  test('asks about labels that differ, and takes them without a new revision', () => {
    const tagged = { ...recordFor('nod'), tags: ['house style'], retired: true };
    const plan = planImport(starter, [tagged], { nod: 'take' });
    expect(plan.report.entries[0]).toMatchObject({ status: 'conflict', facts: 'other tags, retired there' });
    expect(plan.writes).toEqual([tagged]);
  });

  test('never loses a draft that is here', () => {
    const draft = { name: 'Mine', note: '', author: 'Ada', when: '2026-01-01T00:00:00.000Z', inReview: false };
    const mine = { ...recordFor('nod'), draft: { ...draft, body: recordFor('nod').revisions[0].body } } as ItemRecord;
    const theirs = { ...mine, draft: { ...mine.draft, name: 'Theirs' } } as ItemRecord;
    const needed = [recordFor('curve-arrive'), recordFor('curve-soft')];
    const plan = planImport([mine], [...needed, theirs], { nod: 'take' });
    expect(plan.writes.at(-1)?.draft?.name).toBe('Mine');
    // Where none is here, that of the pack comes along with a revision that is taken, and where neither has one there is none.
    const [one, other] = ['one', 'other'].map((name) => revised(recordFor('nod'), name));
    const taking = (coming: ItemRecord) => planImport([one, ...needed], [coming], { nod: 'take' }).writes.at(-1)?.draft;
    expect(taking({ ...other, draft: theirs.draft } as ItemRecord)?.name).toBe('Theirs');
    expect(taking(other)).toBeNull();
    const told = (here: ItemRecord, coming: ItemRecord) => {
      const { entries } = planImport([here, ...needed], [coming]).report;
      return entries.map(({ status, facts }) => [status, facts]);
    };
    expect(told(mine, theirs)).toEqual([['conflict', 'other draft']]);
    expect(told(mine, mine)).toEqual([['same', '1 revision and a draft']]);
    const drafted = { ...mine, revisions: [] } as ItemRecord;
    expect(told(drafted, drafted)).toEqual([['same', 'a draft']]);
    // One that only one of both has is no difference to be asked about.
    expect(told(recordFor('nod'), theirs)).toEqual([['newer', 'with a draft']]);
    expect(told(mine, recordFor('nod'))).toEqual([['older', 'here is r1 and a draft']]);
    expect(told(mine, revised(recordFor('nod'), 'again'))).toEqual([['newer', 'r1 → r2']]);
  });

  test('tells an item of another kind apart from a revision that differs', () => {
    const other = { ...recordFor('curve-soft'), id: 'nod' } as ItemRecord;
    expect(planImport([recordFor('nod')], [other]).report.entries[0]).toMatchObject({
      status: 'conflict',
      facts: 'here it is a preset',
    });
  });
});

type Files = Record<string, string>;

/** The files of a sound pack of one preset and the curve that it needs, to be broken. */
function files(): Files {
  const [bump, soft, arrive] = ['bump', 'curve-soft', 'curve-arrive'].map(recordFor);
  const item = ({ id, kind }: ItemRecord) => ({ id, kind, name: id, file: `items/${id}.json` });
  return {
    'pack.json': JSON.stringify({ format: 'wexikine-pack-1', items: [bump, soft, arrive].map(item) }),
    'items/bump.json': JSON.stringify(bump),
    'items/curve-soft.json': JSON.stringify(soft),
    'items/curve-arrive.json': JSON.stringify(arrive),
  };
}

function zipOf(contents: Files): Uint8Array {
  const entries = Object.entries(contents).map(([name, text]) => [name, strToU8(text)] as const);
  return zipSync(Object.fromEntries(entries) as Zippable);
}

function changed(change: (contents: Files) => void): Uint8Array {
  const contents = files();
  change(contents);
  return zipOf(contents);
}

function edited(file: string, change: (data: Record<string, never>) => void): Uint8Array {
  return changed((contents) => {
    const data = JSON.parse(contents[file]) as Record<string, never>;
    change(data);
    contents[file] = JSON.stringify(data);
  });
}

/** The bytes with some written over, counted from where a signature stands last. */
function patched(bytes: Uint8Array, signature: readonly number[], at: number, values: readonly number[]): Uint8Array {
  const copy = bytes.slice();
  for (let i = copy.length - 4; i >= 0; i--) {
    if (!signature.every((byte, k) => copy[i + k] === byte)) continue;
    values.forEach((value, k) => (copy[i + at + k] = value));
    return copy;
  }
  throw new Error('no such signature');
}

const DIRECTORY = [0x50, 0x4b, 1, 2];

/** What a reader is told: of reading, or of how the items hang together. */
function told(bytes: Uint8Array, here: readonly ItemRecord[] = []): string[] {
  const result = readPack(bytes);
  if (!result.ok) return result.problems.map(describePackProblem);
  const plan = planImport(here, result.records);
  if (plan.report.problems.length > 0) expect(plan.writes).toEqual([]);
  return [...plan.report.problems];
}

type Broken = readonly [string, () => Uint8Array, RegExp];

const BROKEN: readonly Broken[] = [
  ['an empty file', () => new Uint8Array(0), /^The file is empty\./],
  ['a picture', () => strToU8('\x89PNG and so on, and on and on'), /^This is not a zip file\./],
  ['a zip cut in the middle', () => zipOf(files()).slice(0, 900), /is cut off: its end is missing/],
  ['a zip cut near its end', () => zipOf(files()).slice(0, -9), /is cut off/],
  [
    'a zip whose directory leads nowhere',
    () => patched(zipOf(files()), DIRECTORY, 42, [255, 255, 255, 127]),
    /is cut off/,
  ],
  ['a huge file', () => new Uint8Array(33 * 1024 * 1024), /^The file has 33 MB, and a pack has at most 32 MB/],
  [
    'a zip that would unpack to gigabytes',
    () => patched(zipOf(files()), DIRECTORY, 24, [0, 0, 0, 0xf0]),
    /^Unpacked it would take \d+ MB/,
  ],
  ['a path upwards', () => changed((f) => (f['../evil.json'] = '{}')), /“\.\.\/evil\.json” points outside the pack/],
  ['an absolute path', () => changed((f) => (f['/etc/evil'] = '{}')), /points outside/],
  ['a path with backslashes', () => changed((f) => (f['..\\evil'] = '{}')), /points outside/],
  ['a drive letter', () => changed((f) => (f['C:evil'] = '{}')), /points outside/],
  ['a file locked with a password', () => patched(zipOf(files()), DIRECTORY, 8, [1, 0]), /locked with a password/],
  ['an unknown way of packing', () => patched(zipOf(files()), DIRECTORY, 10, [99, 0]), /packed in a way/],
  ['a damaged file', () => patched(zipOf(files()), DIRECTORY, 16, [1, 2, 3, 4]), /is damaged: its contents/],
  ['no list', () => changed((f) => delete f['pack.json']), /has no pack\.json/],
  [
    'a list that is not JSON',
    () => changed((f) => (f['pack.json'] = '{oops')),
    /“pack\.json” cannot be read. This is not valid JSON/,
  ],
  [
    'the list of something else',
    () => changed((f) => (f['pack.json'] = '{"format":"other"}')),
    /is not that of a pack/,
  ],
  ['a list that is null', () => changed((f) => (f['pack.json'] = 'null')), /is not that of a pack/],
  [
    'the list of a newer Wexikine',
    () => changed((f) => (f['pack.json'] = '{"format":"wexikine-pack-9"}')),
    /newer Wexikine \(wexikine-pack-9\)/,
  ],
  [
    'a list without items',
    () => changed((f) => (f['pack.json'] = '{"format":"wexikine-pack-1"}')),
    /^In pack\.json, items:/,
  ],
  ['an item’s file missing', () => changed((f) => delete f['items/bump.json']), /lists “bump”, and its file/],
  [
    'an item listed twice',
    () => edited('pack.json', (data) => (data['items'] as unknown[]).push((data['items'] as unknown[])[0])),
    /“bump” is listed twice/,
  ],
  [
    'an item that is not JSON',
    () => changed((f) => (f['items/bump.json'] = '[1,')),
    /“items\/bump\.json” cannot be read. This is not valid JSON/,
  ],
  [
    'an item of a wrong schema',
    () => edited('items/bump.json', (d) => delete d['tags']),
    /^In items\/bump\.json, tags:/,
  ],
  [
    'fields that nobody knows',
    () => edited('items/bump.json', (d) => ((d as Record<string, unknown>)['extra'] = 1)),
    /extra/,
  ],
  [
    'a prototype in disguise',
    () => changed((f) => (f['items/bump.json'] = f['items/bump.json'].replace('{', '{"__proto__":{"polluted":1},'))),
    /__proto__/,
  ],
  [
    'an item under another’s name',
    () => edited('items/bump.json', (d) => ((d as Record<string, unknown>)['id'] = 'nod')),
    /listed as “bump”, and says that it is “nod”/,
  ],
  [
    'revisions with a gap',
    () => edited('items/bump.json', (d) => ((d['revisions'] as { revision: number }[])[0].revision = 2)),
    /numbered 1, 2, 3 … without a gap/,
  ],
  [
    'script in a name',
    () =>
      edited('items/bump.json', (d) => ((d['revisions'] as { name: string }[])[0].name = '<script>alert(1)</script>')),
    /revisions\.0\.name: This must be plain text, without < and >/,
  ],
  [
    'something needed that is nowhere',
    () =>
      changed((f) => {
        f['pack.json'] = f['pack.json'].replace(/,\{"id":"curve-soft".*?\}/, '');
      }),
    /“Bump” needs “curve-soft” \(scale\.x after Peak\), which is neither in the pack nor here/,
  ],
  [
    'an unknown revision',
    () =>
      changed(
        (f) =>
          (f['items/bump.json'] = f['items/bump.json'].replace(
            '"id":"curve-soft","revision":1',
            '"id":"curve-soft","revision":7',
          )),
      ),
    /takes revision 7 of “curve-soft”/,
  ],
  [
    'a formula that cannot run',
    () =>
      changed((f) => (f['items/bump.json'] = f['items/bump.json'].replace('here × (1 + @swell)', 'here × (1 + 20px)'))),
    /^“Bump” \(r1\) cannot run\. In scale\.x at Peak, .*This gives a length/,
  ],
  [
    'an easing that is no curve',
    () => changed((f) => (f['items/bump.json'] = f['items/bump.json'].replace('"id":"curve-soft"', '"id":"bump"'))),
    /circle|something else than a curve/,
  ],
];

describe('a broken pack', () => {
  test('there are twenty kinds and more', () => expect(BROKEN.length).toBeGreaterThanOrEqual(20));

  test('the pack that is broken here is sound before', () => expect(told(zipOf(files()))).toEqual([]));

  test.each(BROKEN)('with %s gets its own report and changes nothing', (_, make, sentence) => {
    const sentences = told(make());
    expect(sentences.length).toBeGreaterThan(0);
    expect(sentences[0]).toMatch(sentence);
  });

  test('with circles among house values or matching presets is told with the way round', () => {
    const value = (id: string, as: string): ItemRecord => {
      const brisk = recordFor('house-brisk');
      return {
        ...brisk,
        id,
        revisions: [{ ...brisk.revisions[0], body: { type: 'duration', value: '8f', as } }],
      } as ItemRecord;
    };
    expect(told(writePack([value('a', 'b'), value('b', 'c'), value('c', 'a')]))).toEqual([
      'These refer to each other in a circle: “a” → “b” → “c” → “a”. Take one of the links out.',
    ]);
    const number = { ...value('n', 'house-breath') };
    expect(told(writePack([number, recordFor('house-breath')]))[0]).toMatch(
      /something else than a house value of the same type/,
    );
  });

  test('what is only named stays harmless text', () => {
    expect(({} as Record<string, unknown>)['polluted']).toBeUndefined();
  });
});
