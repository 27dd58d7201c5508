import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { STARTER_RIGS } from '../../library/starter';
import { addFormula, renameRole, rigAsPreset, rigFromPreset, setFormulaChannels } from '../../library/authoring';
import { compileRig, createRig, draftRigSchema, freeName, rigProblems, rigSchema, type Rig } from '.';

const TEXTS = STARTER_RIGS.flatMap(({ body }) => body.formulas.map(({ text, channels }) => ({ body, text, channels })));
const SCRAPS = [
  '×',
  '÷',
  '(',
  ')',
  ',',
  'let',
  '=',
  '@',
  '@nothing',
  '5deg',
  '20px',
  '%',
  'follow(',
  'since',
  'leader.',
  '..',
  '#',
  '\n',
  'if',
  'then',
  '1e9',
  'é',
  'keyed',
  '^',
  'chase',
];

/** A formula with something cut out, put in or put elsewhere. */
const spoilt = fc
  .tuple(fc.nat(TEXTS.length - 1), fc.nat(10_000), fc.nat(40), fc.nat(SCRAPS.length - 1), fc.nat(3))
  .map(([which, at, length, scrap, how]) => {
    const { text, ...rest } = TEXTS[which];
    const from = at % (text.length + 1);
    const [before, cut, after] = [text.slice(0, from), text.slice(from, from + length), text.slice(from + length)];
    const ways = [
      before + after,
      `${before} ${SCRAPS[scrap]} ${cut}${after}`,
      after + cut + before,
      before + SCRAPS[scrap],
    ];
    return { ...rest, text: ways[how] };
  });

function withText(body: Rig, channels: Rig['formulas'][number]['channels'], text: string): Rig {
  return { ...body, formulas: [{ channels: [...channels], text }] };
}

describe('formulas of rigs', () => {
  test('a thousand spoilt ones never throw, and each that is wrong says what, with its place', () => {
    let wrong = 0;
    fc.assert(
      fc.property(spoilt, ({ body, channels, text }) => {
        const { problems } = compileRig(withText(body, channels, text));
        if (problems.length > 0) wrong++;
        for (const { message, problem } of problems) {
          expect(message.length).toBeGreaterThan(10);
          expect(problem.span.from).toBeGreaterThanOrEqual(0);
          expect(problem.span.to).toBeLessThanOrEqual(Math.max(text.length, problem.span.from));
        }
      }),
      { numRuns: 1_000 },
    );
    expect(wrong).toBeGreaterThan(500);
  });

  test('what is too long, or nested too deeply, is refused at once', () => {
    const began = performance.now();
    const long = 'keyed + 1px '.repeat(10_000);
    const deep = `${'('.repeat(10_000)}keyed${')'.repeat(10_000)}`;
    for (const text of [long, deep]) {
      expect(compileRig(withText(createRig(), ['position.x'], text)).problems[0].problem.code).toBe('too-long');
    }
    expect(performance.now() - began).toBeLessThan(1_000);
    const nested = `${'('.repeat(900)}keyed${')'.repeat(900)}`;
    expect(compileRig(withText(createRig(), ['position.x'], nested)).problems).toEqual([]);
  });

  test('units are checked for each channel that a text drives', () => {
    const { problems, formulas } = compileRig(
      withText(createRig(), ['position.x', 'rotation', 'opacity'], 'keyed + 3deg'),
    );
    expect(formulas.map(({ channel }) => channel)).toEqual(['rotation']);
    expect(problems.map(({ channel }) => channel)).toEqual(['position.x', 'opacity']);
  });

  test('follow and chase need a channel, a time and a pace', () => {
    const problemOf = (text: string) => compileRig(withText(createRig(), ['position.x'], text)).problems[0]?.message;
    expect(problemOf('follow(3px, 2f)')).toContain('needs the name of one first');
    expect(problemOf('follow(keyed, 2px)')).toContain('a time is needed');
    expect(problemOf('chase(keyed, 2f, 1)')).toContain('a frequency is needed');
    expect(problemOf('chase(keyed, 2Hz, 1deg)')).toContain('a plain number is needed');
    expect(problemOf('follow(keyed, 3f)')).toBeUndefined();
    expect(problemOf('leadr.position.x')).toContain('Nothing here is called leadr.position.x');
  });
});

describe('a rig as data', () => {
  test('what does not hang together is said', () => {
    const [dial] = createRig().dials;
    const broken: Rig = {
      dials: [dial, dial],
      roles: [{ name: 'each', note: '' }],
      formulas: [
        { channels: ['opacity'], text: 'keyed' },
        { channels: ['opacity'], text: 'keyed' },
      ],
    };
    expect(rigProblems(broken)).toHaveLength(3);
    expect(rigSchema.safeParse({ ...createRig(), formulas: [] }).success).toBe(false);
    expect(draftRigSchema.safeParse({ ...createRig(), formulas: [] }).success).toBe(true);
    for (const { body } of STARTER_RIGS) expect(rigSchema.safeParse(body).success).toBe(true);
  });

  test('its dials are changed as parameters are, and its formulas follow', () => {
    const rig = STARTER_RIGS[0].body;
    expect(rigFromPreset(rig, rigAsPreset(rig))).toEqual(rig);
    expect(addFormula(rig, ['corner']).formulas.at(-1)).toEqual({ channels: ['corner'], text: 'keyed' });
    expect(setFormulaChannels(rig, 0, []).formulas).toEqual([]);
    expect(freeName('leader', ['leader', 'leader2'])).toBe('leader3');
  });

  test('a part under another name is followed by formulas, and by nothing that only looks like it', () => {
    const rig: Rig = {
      dials: [],
      roles: [{ name: 'leader', note: '' }],
      formulas: [{ channels: ['rotation'], text: 'leader.rotation + follow(leader.rotation, 3f) × 0 # my leader.x' }],
    };
    const renamed = renameRole(rig, 'leader', 'moon');
    expect(renamed.roles[0].name).toBe('moon');
    expect(renamed.formulas[0].text).toContain('moon.rotation + follow(moon.rotation, 3f)');
    expect(renameRole(rig, 'leader', '  ')).toBe(rig);
  });
});
