import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import {
  frameTicks,
  programmeBoard,
  readBundle,
  ticksFromSeconds,
  writeBundle,
  type PresetRecipe as Recipe,
  type Scene,
} from '@wexikine/core';
import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';

const BIN = resolve(__dirname, '../bin/wexikine.mjs');
let folder: string;

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'wexikine-cli-'));
});

afterAll(() => rmSync(folder, { recursive: true, force: true }));

function wexikine(...args: string[]): { code: number | null; out: string; error: string } {
  const { status, stdout, stderr } = spawnSync(process.execPath, [BIN, ...args], {
    encoding: 'utf8',
    env: { ...process.env, NODE_OPTIONS: '' },
  });
  return { code: status, out: stdout, error: stderr };
}

function file(name: string, data: unknown): string {
  const path = join(folder, name);
  writeFileSync(path, typeof data === 'string' ? data : JSON.stringify(data));
  return path;
}

function sceneFile(scene: Scene = programmeBoard()): string {
  return file('scene.json', scene);
}

const pop: Recipe = {
  operation: 'bring-in',
  preset: { id: 'pop-in-five-steps' },
  pick: { by: 'rule', tag: 'row' },
  order: { by: 'down' },
  start: { by: 'time', at: '0f' },
  spacing: { by: 'gap', gap: '8f' },
  moves: 'keys',
  length: { by: 'preset' },
  parameters: {},
  existing: 'replace',
  seed: 1,
};

describe('wexikine', () => {
  test('the five-step pop lands where it should on each of twelve layers, each 8 f after the one before', () => {
    const out = join(folder, 'popped.json');
    const applied = wexikine('apply', sceneFile(), file('pop.json', pop), '-o', out);
    expect(applied).toMatchObject({ code: 0, out: '' });
    expect(applied.error).toContain('12 layers; keys: 144 added, 0 replaced, 0 removed, 0 kept.');
    const frames = [0, 8, 11, 14, 16, 18];
    for (const [layer, offset] of [
      ['row-01', 0],
      ['Moonrise walk', 0],
      ['row-12', 88],
    ] as const) {
      const at = frames.map((frame) => `${frame + offset}f`).join(',');
      const { out: csv } = wexikine('sample', out, '--at', at, '--layers', layer, '--channels', 'scale.x,scale.y');
      const rows = csv
        .trim()
        .split('\n')
        .slice(1)
        .map((line) =>
          line
            .split(',')
            .slice(-2)
            .map((text) => Number(Number(text).toFixed(9))),
        );
      expect(rows).toEqual([0, 1.2, 0.8, 1.1, 0.9, 1].map((value) => [value, value]));
    }
    expect(wexikine('plan', sceneFile(), file('pop.json', pop)).out).toMatch(/12\s+row-12\s+3:13\s+4:06\s+18 f/);
  });

  test('a fade keeps the opacity of the layer: 60 %, not 100 %', () => {
    const scene = programmeBoard();
    const layers = scene.layers.map((layer) =>
      layer.id === 'moon' ? { ...layer, rest: { ...layer.rest, opacity: 0.6 } } : layer,
    );
    const fade: Recipe = { ...pop, preset: { id: 'fade-in' }, pick: { by: 'layers', layers: ['moon'] } };
    const out = join(folder, 'faded.json');
    wexikine('apply', sceneFile({ ...scene, layers }), file('fade.json', fade), '-o', out);
    const { out: json } = wexikine(
      'sample',
      out,
      '--at',
      '0f,6f,12f,1s',
      '--layers',
      'moon',
      '--channels',
      'opacity',
      '--format',
      'json',
    );
    expect(
      JSON.parse(json).map(({ values }: { values: { opacity: number } }) => Number(values.opacity.toFixed(9))),
    ).toEqual([0, 0.3, 0.6, 0.6]);
  });

  test('half-second beats at 30 fps start 3:00, 3:15, 4:00, 4:15, 5:00', () => {
    const layers = programmeBoard().layers.filter(({ id }) => /^row-0[1-5]$/.test(id));
    const scene: Scene = { ...programmeBoard(), rate: { num: 30, den: 1 }, layers };
    const beats: Recipe = {
      ...pop,
      preset: { id: 'fade-in' },
      start: { by: 'time', at: '3:00' },
      spacing: { by: 'gap', gap: '15f' },
      length: { by: 'fixed', length: '15f' },
    };
    const { out } = wexikine('plan', sceneFile(scene), file('beats.json', beats));
    expect([...out.matchAll(/row-0\d\s+(\S+)\s+\S+\s+(15 f)/g)].map(([, start]) => start)).toEqual([
      '3:00',
      '3:15',
      '4:00',
      '4:15',
      '5:00',
    ]);
  });

  test('panels with exit, rows × replacements, a common end with kept entrances, and cover at 45° (common practice)', () => {
    const rows = programmeBoard().layers.filter(({ id }) => /^row-0\d$/.test(id));
    const board = (count: number, more: Partial<Scene> = {}): Scene => ({
      ...programmeBoard(),
      length: ticksFromSeconds(40),
      layers: rows.slice(0, count),
      ...more,
    });
    const columns = (out: string, row: RegExp): string[] => [...out.matchAll(row)].map(([, text]) => text);

    const exit: Recipe = {
      ...pop,
      operation: 'send-out',
      preset: { id: 'slide-from-left-edge', mirrored: true },
      start: { by: 'finish', at: '2:50' },
      spacing: { by: 'gap', gap: '5f' },
      length: { by: 'fixed', length: '60f' },
    };
    const gone = wexikine('plan', sceneFile(board(3, { rate: { num: 60, den: 1 } })), file('exit.json', exit)).out;
    expect(columns(gone, /row-0\d\s+(\S+)\s+\S+\s+60 f/g)).toEqual(['1:40', '1:45', '1:50']);
    expect(gone).toContain('such that the last is done at 2:50');

    const base = { pick: { by: 'rule', tag: 'row' }, order: { by: 'layered' }, seed: 1 } as const;
    const way = { by: 'rows', rows: 3, from: { by: 'time', at: '0f' }, apart: '3s', hold: '9s' } as const;
    const lineUp = { operation: 'line-up', ...base, way, parts: 'keep', squeeze: false } as const;
    const stills = wexikine('plan', sceneFile(board(9)), file('rows.json', lineUp)).out;
    expect(columns(stills, /row-0\d\s+(\S+)/g)).toEqual(
      [0, 3, 6, 9, 12, 15, 18, 21, 24].map((second) => `${second}:00`),
    );
    expect(stills).toMatch(/row-09\s+24:00\s+33:00/);

    const beats = join(folder, 'beats.json');
    const entrance: Recipe = { ...pop, preset: { id: 'fade-in' }, moves: 'layers', spacing: { by: 'gap', gap: '15f' } };
    wexikine(
      'apply',
      sceneFile(board(5, { rate: { num: 30, den: 1 } })),
      file('in.json', { ...entrance, start: { by: 'time', at: '3:00' }, length: { by: 'fixed', length: '15f' } }),
      '-o',
      beats,
    );
    const ended = join(folder, 'ended.json');
    const end = { ...lineUp, way: { by: 'end', at: { by: 'scene' } } };
    wexikine('apply', beats, file('end.json', end), '-o', ended);
    const scene = JSON.parse(readFileSync(ended, 'utf8')) as Scene;
    for (const { span, tracks } of scene.layers) {
      const [first, last] = tracks.opacity ?? [];
      expect([span.out, first.at, last.at - first.at]).toEqual([scene.length, span.in, ticksFromSeconds(0.5)]);
    }

    const rest = { 'position.x': 960, 'position.y': 540, 'size.x': 1920, 'size.y': 1080, rotation: 45 };
    const turned = [{ ...rows[0], rest }];
    const cover = { operation: 'arrange', ...base, way: { by: 'cover' } };
    const covered = wexikine('plan', sceneFile(board(1, { layers: turned })), file('cover.json', cover)).out;
    expect(covered).toMatch(/1\.964\d+\s+1\.964\d+/);
  });

  test('keys that stand are adjusted: exits restaggered, an overshoot chain stretched, both undone by other numbers', () => {
    const panels = programmeBoard().layers.filter(({ id }) => /^row-0[1-3]$/.test(id));
    const scene: Scene = {
      ...programmeBoard(),
      rate: { num: 60, den: 1 },
      length: ticksFromSeconds(6),
      layers: panels,
    };
    const frame = frameTicks(scene.rate);
    const step = (name: string, from: string, recipe: unknown): string => {
      const to = join(folder, `${name}-after.json`);
      wexikine('apply', from, file(`${name}.json`, recipe), '-o', to);
      return to;
    };
    const base = { pick: { by: 'rule', tag: 'row' }, order: { by: 'layered' }, seed: 1, operation: 'adjust' } as const;
    const fixed = (value: string) => ({ by: 'fixed', value });
    const fade: Recipe = {
      ...pop,
      preset: { id: 'fade-in' },
      spacing: { by: 'gap', gap: '5f' },
      length: { by: 'fixed', length: '60f' },
    };
    const inside = step('fade', sceneFile(scene), fade);
    const out = step('out', inside, {
      ...fade,
      operation: 'send-out',
      preset: { id: 'fade-out' },
      start: { by: 'time', at: '1:40' },
    });
    // Only the exit's keys, each layer's own shape kept: one every 8 frames instead of 5.
    const spread = step('restagger', out, {
      ...base,
      keys: { which: 'all', phases: ['exit'] },
      steps: [{ id: 's1', type: 'restagger' }],
      parameters: { s1_gap: fixed('8f') },
    });
    const times = (path: string): number[][] =>
      (JSON.parse(readFileSync(path, 'utf8')) as Scene).layers.map(({ tracks }) =>
        (tracks.opacity ?? []).map(({ at }) => at / frame),
      );
    expect(times(out)).toEqual([0, 5, 10].map((from) => [from, from + 60, 100 + from, 160 + from]));
    expect(times(spread)).toEqual([0, 1, 2].map((n) => [5 * n, 5 * n + 60, 100 + 8 * n, 160 + 8 * n]));

    // The five-step pop at 0, 8, 11, 14, 16, 18, half as long again about each layer's first key.
    const popped = step('pop', sceneFile(scene), { ...pop, length: { by: 'preset' } });
    const stretched = step('stretch', popped, {
      ...base,
      keys: { which: 'all', channels: ['scale.x'] },
      steps: [{ id: 's1', type: 'stretch', pivot: { by: 'first' } }],
      parameters: { s1_to: fixed('150%') },
    });
    const chain = (path: string): number[] =>
      ((JSON.parse(readFileSync(path, 'utf8')) as Scene).layers[1].tracks['scale.x'] ?? []).map(({ at }) => at / frame);
    const [first] = chain(popped);
    expect(chain(stretched).map((at) => at - first)).toEqual(chain(popped).map((at) => (at - first) * 1.5));
    const refused = wexikine(
      'plan',
      stretched,
      file('none.json', {
        ...base,
        keys: { which: 'all', from: '5s' },
        steps: [{ id: 's1', type: 'freeze' }],
        parameters: {},
      }),
    );
    expect(refused.out + refused.error).toContain('No key of the picked layers meets this rule');
  });

  test('timecode, curves and formulas are computed', () => {
    expect(wexikine('timecode', '1800f', '--rate', '30000/1001').out).toContain('00:01:00;02');
    expect(wexikine('timecode', '0.5s', '--rate', '25').out).toContain('rounding  -0.5 of a frame');
    expect(wexikine('curve', 'steps(4, jump-end)', '--at', '0,0.3,1').out).toBe('share,progress\n0,0\n0.3,0.25\n1,1\n');
    expect(wexikine('formula', 'rest × (1 + @over)', '--with', 'rest=300px', '--with', 'over=20%').out).toBe(
      '360 px\n',
    );
    expect(wexikine('formula', '@lasts × 8 ÷ 18', '--with', 'lasts=18f').out).toBe('0.32 s\n');
    expect(wexikine('formula', '2 > 1').out).toBe('yes\n');
  });

  test('a scene that came with its pictures keeps them through apply, and its page holds them', () => {
    const name = `${'ab'.repeat(32)}.png`;
    const bytes = Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, 1]);
    const board = programmeBoard();
    const row = board.layers.findIndex(({ tags }) => tags.includes('row'));
    const source = { type: 'picture' as const, href: `files/${name}`, width: 30, height: 20 };
    const scene = { ...board, layers: board.layers.map((layer, i) => (i === row ? { ...layer, source } : layer)) };
    const [zip, out] = [join(folder, 'with-pictures.zip'), join(folder, 'applied.zip')];
    writeFileSync(zip, writeBundle(scene, new Map([[name, bytes]])));
    expect(wexikine('apply', zip, file('pop.json', pop), '-o', out).code).toBe(0);
    const read = readBundle(readFileSync(out));
    expect(read.ok && [...read.files]).toEqual([[name, bytes]]);
    const page = wexikine('export', out, '--to', 'css').out;
    expect(page).toContain(`src="data:image/png;base64,${Buffer.from(bytes).toString('base64')}"`);
    expect(page).not.toContain(`files/${name}`);
    const cut = join(folder, 'cut.zip');
    writeFileSync(cut, readFileSync(zip).subarray(0, 400));
    expect(wexikine('export', cut, '--to', 'css').error).toMatch(/cut\.zip: .*cut off/);
  });

  test('export writes a page and JSON that reads back', () => {
    const page = wexikine('export', sceneFile(), '--to', 'css').out;
    expect(page).toContain('data-layer="row-01"');
    expect(page).toContain('data:font/woff2;base64,');
    const path = join(folder, 'out.json');
    wexikine('export', sceneFile(), '--to', 'json', '-o', path);
    expect(JSON.parse(readFileSync(path, 'utf8'))).toEqual(programmeBoard());
    expect(wexikine('validate', path).out).toContain('a valid scene');
  });

  test.each([
    [['sample', 'ghost.json', '--at', '0f'], 'ghost.json: It is not there. Check the path.'],
    [['timecode', 'soon'], '“soon”: This is not a time.'],
    [['timecode', '00:01:00:00', '--rate', '29.97'], 'does not exist in drop-frame timecode'],
    [['timecode', '1f', '--rate', '17'], '--rate “17”: This is not a frame rate.'],
    [['curve', 'bouncy'], '“bouncy” is not an easing.'],
    [['formula', '20px + 6deg'], 'A length and an angle cannot be added.'],
    [['formula', '1 ÷ 0'], 'The value is not finite'],
    [['formula', 'x', '--with', 'x'], 'Write name=value'],
    [['dance'], 'unknown command'],
    [['sample', 'x.json'], "required option '--at <times>' not specified"],
  ])('%j fails on standard error with a nonzero exit', (args, sentence) => {
    const { code, out, error } = wexikine(...args);
    expect(code).not.toBe(0);
    expect(out).toBe('');
    expect(error).toContain(sentence);
    expect(error).not.toContain('at file:');
  });

  test('a file with faults is refused with the place of each', () => {
    const { code, error } = wexikine('validate', file('bad.json', { ...programmeBoard(), width: 3 }));
    expect(code).toBe(1);
    expect(error).toContain('width: At least 16 pixels.');
    expect(wexikine('validate', file('half.json', '{"layers": [')).error).toContain('not valid JSON');
    expect(
      wexikine('plan', sceneFile(), file('odd.json', { ...pop, spacing: { by: 'gap', gap: 'wide' } })).error,
    ).toContain('This is not a time.');
    expect(wexikine('sample', sceneFile(), '--at', '0f', '--layers', 'nobody').error).toContain(
      'The scene has no such layer',
    );
  });
});

describe('packs', () => {
  test('are made of chosen items with all that they need, and checked against a library', () => {
    const path = join(folder, 'pack.zip');
    const made = wexikine('pack', '--items', 'Fade in and out,bump', '-o', path);
    expect(made.code).toBe(0);
    expect(made.error).toContain('A pack of 5 items:');
    expect(wexikine('validate', path).out).toContain('a valid pack of 5 items.');
    const all = join(folder, 'all.zip');
    wexikine('pack', '-o', all);
    const { out } = wexikine('validate', path, '--library', all);
    expect(out.match(/^ {2}same/gm)).toHaveLength(5);
    const again = join(folder, 'again.zip');
    wexikine('pack', path, '-o', again);
    expect(readFileSync(again)).toEqual(readFileSync(path));
  });

  test('that are broken, and items that are not there, are refused; nothing is written', () => {
    const path = join(folder, 'good.zip');
    wexikine('pack', '--items', 'bump', '-o', path);
    const cut = join(folder, 'cut.zip');
    writeFileSync(cut, readFileSync(path).subarray(0, 700));
    const { code, error } = wexikine('validate', cut);
    expect(code).toBe(1);
    expect(error).toContain('A broken pack.\n  The zip file is cut off: its end is missing.');
    const nowhere = join(folder, 'nowhere.zip');
    expect(wexikine('pack', '--items', 'ghost', '-o', nowhere).error).toContain('There is no such item');
    expect(existsSync(nowhere)).toBe(false);
    expect(wexikine('validate', file('picture.zip', 'not a zip')).error).toContain('This is not a zip file.');
  });
});

describe('what cannot be', () => {
  test.each([
    [['timecode', '9'.repeat(400)], 'longer than can be held exactly'],
    [['timecode', '12345678901234567f'], 'about 147 days'],
    [['timecode', 'soon'], 'This is not a time'],
  ])('%s is refused with the reason', (args, sentence) => {
    const { code, error } = wexikine(...args);
    expect([code, error]).toEqual([1, expect.stringContaining(sentence)]);
  });

  test('a negative time needs no mark before it', () => {
    expect(wexikine('timecode', '-1:00', '--rate', '25').out).toContain('timecode  -00:00:01:00');
  });

  test.each([
    ['a gap beyond what can be held', { ...pop, spacing: { by: 'gap', gap: '13000000s' } }],
    ['a gap of 34 nines', { ...pop, spacing: { by: 'gap', gap: `${'9'.repeat(34)}s` } }],
    ['gaps that together are beyond it', { ...pop, spacing: { by: 'gap', gap: '12000000s' } }],
  ])('%s writes nothing', (_, recipe) => {
    const out = join(folder, 'never.json');
    const { code, error } = wexikine('apply', sceneFile(), file('huge.json', recipe), '-o', out);
    expect([code, existsSync(out)]).toEqual([1, false]);
    expect(error).toContain('147 days');
  });

  test('a name that is too long, a folder that is not there and data that is too deep are told without a stack', () => {
    const named = wexikine('apply', sceneFile(), file('pop.json', pop), '--by', 'x'.repeat(300));
    expect([named.code, named.error]).toEqual([1, '--by: Give a name of 1 to 100 characters; this has 300.\n']);
    const nowhere = wexikine('export', sceneFile(), '--to', 'json', '-o', join(folder, 'no/where.json'));
    expect([nowhere.code, nowhere.error]).toEqual([1, expect.stringContaining('Make the folder first.')]);
    const deep = file('deep.json', `{"layers":${'['.repeat(50_000)}${']'.repeat(50_000)}}`);
    for (const args of [
      ['validate', deep],
      ['export', deep, '--to', 'json'],
      ['export', deep, '--to', 'css'],
    ]) {
      expect(wexikine(...args)).toMatchObject({ code: 1, error: expect.stringContaining('nested more than 64 deep') });
    }
    const groups = Array.from({ length: 3_000 }, (_, i) => ({
      ...programmeBoard().layers[0],
      id: `g${i}`,
      kind: 'group',
      parent: i === 0 ? null : `g${i - 1}`,
    }));
    const nested = wexikine('export', file('nested.json', { ...programmeBoard(), layers: groups }), '--to', 'css');
    expect(nested).toMatchObject({ code: 1, error: expect.stringContaining('At most 64 are possible') });
    const odd = { ...programmeBoard(), layers: [{ ...programmeBoard().layers[0], look: { fill: 'color(' } }] };
    expect(wexikine('validate', file('odd.json', odd)).error).toContain('This is not a CSS colour');
  });

  test('names in a table are no formulas', () => {
    const [first] = programmeBoard().layers;
    const scene = { ...programmeBoard(), layers: [{ ...first, parent: null, name: '=1+1' }], runs: [] };
    expect(wexikine('sample', file('formula.json', scene), '--at', '0f', '--channels', 'opacity').out).toContain(
      ",'=1+1,",
    );
  });
});
