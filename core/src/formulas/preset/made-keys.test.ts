import { describe, expect, test } from '@jest/globals';
import { frameTicks, type Rate } from '../../basics/time';
import {
  compilePreset,
  createColumns,
  makeRow,
  momentColumns,
  naturalLengths,
  placeMoments,
  type Phase,
  type Preset,
  type PresetEasing,
} from '.';

const RATE: Rate = { num: 25, den: 1 };
const FRAME = frameTicks(RATE);

interface Asked {
  /** Times and values of the cells, and their easings. */
  readonly cells: readonly (readonly [at: string, value: string, ease?: PresetEasing])[];
  readonly phase?: Phase;
  readonly grid?: Preset['grid'];
  /** How many times as long as the preset's own. */
  readonly factor?: number;
  readonly channel?: 'position.x' | 'opacity';
  readonly rest?: number;
  /** Whether a switch that the row hangs on is on. */
  readonly isOn?: boolean;
}

/** The keys of one row on one layer that begins at frame 10: frame, value, slot. */
function made({
  cells,
  phase = 'entrance',
  grid = 'frames',
  factor = 1,
  channel = 'position.x',
  rest = 0,
  isOn,
}: Asked) {
  const preset: Preset = {
    phase,
    hang: 'in',
    stretch: 'scale',
    grid,
    parameters: [{ name: 'shown', label: 'Shown', kind: 'switch', default: '0 > 1', note: '' }],
    moments: cells.map(([at], i) => ({ id: `m${i}`, name: `Moment ${i}`, at })),
    rows: [
      {
        channel,
        ...(isOn === undefined ? {} : { when: 'shown' }),
        cells: cells.map(([, value, ease], i) => ({ moment: `m${i}`, value, ease: ease ?? { type: 'linear' } })),
      },
    ],
  };
  const result = compilePreset(preset);
  if (!result.ok) throw new Error(result.problems[0].message);
  const { compiled } = result;
  const columns = createColumns(compiled, 1, RATE);
  columns.values[compiled.scope.places.get('@shown') as number] = Number(isOn ?? false);
  const asked = momentColumns(compiled, columns);
  const moments = placeMoments(asked, Float64Array.of(factor), compiled, RATE);
  const row = makeRow(compiled, compiled.rows[0], columns, moments, {
    facts: { rest: () => rest, here: () => rest },
    rate: RATE,
    mark: (slot) => ({ run: 'r', slot }),
  });
  const keys = row.keysOf(0, 10 * FRAME);
  return {
    keys,
    said: keys.map(({ at, value, by }) => [at / FRAME - 10, value, by.slot.split('/').pop()]),
    isMerged: row.isMergedOn(0),
    broken: row.brokenOn(0),
    lasts: moments.lasts[0] / FRAME,
    natural: naturalLengths(asked, 1)[0],
  };
}

const places = (asked: Asked) => made(asked).said.map(([at, value]) => [at, value]);

describe('keys of a row', () => {
  test('stand at their moments from its beginning, on whole frames, as long as it is stretched', () => {
    const cells = [
      ['0f', '-10'],
      ['4f', '5'],
      ['10f', '0'],
    ] as const;
    expect(places({ cells })).toEqual([
      [0, -10],
      [4, 5],
      [10, 0],
    ]);
    expect(places({ cells, factor: 0.6 })).toEqual([
      [0, -10],
      [2, 5],
      [6, 0],
    ]);
    expect(made({ cells, factor: 0.6 })).toMatchObject({ lasts: 6, natural: 0.4, isMerged: false });
    const between = made({ cells, factor: 0.6, grid: 'exact' }).said.map(([at]) => at);
    expect(between[1]).toBeCloseTo(2.4, 6);
  });

  test('asked for at one time are a jump: the old value holds until the frame before', () => {
    const cells = [
      ['0f', '0'],
      ['5f', '40'],
      ['5f', '90'],
      ['8f', '0'],
    ] as const;
    const { keys, isMerged } = made({ cells });
    expect(places({ cells })).toEqual([
      [0, 0],
      [4, 40],
      [5, 90],
      [8, 0],
    ]);
    expect(keys.map(({ ease }) => ease.type)).toEqual(['linear', 'hold', 'linear', 'linear']);
    expect(isMerged).toBe(false);
    // At the beginning there is no frame before: the jump comes one later, where that is still free.
    const first = [
      ['0f', '40'],
      ['0f', '90'],
      ['8f', '0'],
    ] as const;
    expect(places({ cells: first })).toEqual([
      [0, 40],
      [1, 90],
      [8, 0],
    ]);
    expect(places({ cells: [first[0], first[1], ['1f', '0']] })).toEqual([
      [0, 90],
      [1, 0],
    ]);
    // A key that stands on the frame before leaves no room for what was.
    expect(
      places({
        cells: [
          ['0f', '0'],
          ['4f', '7'],
          ['5f', '40'],
          ['5f', '90'],
        ],
      }),
    ).toEqual([
      [0, 0],
      [4, 7],
      [5, 90],
    ]);
  });

  test('that only share a frame for want of frames are one, and that is told: the first of all, later the last', () => {
    const cells = [
      ['0f', '1'],
      ['4f', '2'],
      ['20f', '3'],
      ['24f', '4'],
    ] as const;
    const short = made({ cells, factor: 0.1 });
    expect(short.said.map(([at, value]) => [at, value])).toEqual([
      [0, 1],
      [2, 4],
    ]);
    expect(short.isMerged).toBe(true);
    expect(made({ cells, factor: 0.5 }).isMerged).toBe(false);
  });

  test('all on one frame are what it arrives at in an entrance, and a jump elsewhere', () => {
    const cells = [
      ['0f', '-50'],
      ['10f', '0'],
    ] as const;
    expect(places({ cells, factor: 0.01 })).toEqual([[0, 0]]);
    expect(places({ cells, factor: 0.01, phase: 'exit' })).toEqual([
      [0, -50],
      [1, 0],
    ]);
    expect(made({ cells, factor: 0.01 }).isMerged).toBe(true);
    expect(
      made({
        cells: [
          ['0f', '-50'],
          ['0f', '0'],
        ],
      }),
    ).toMatchObject({ isMerged: false });
  });

  test('may be asked for out of order', () => {
    const cells = [
      ['8f', '3'],
      ['0f', '1'],
      ['4f', '2'],
    ] as const;
    expect(made({ cells }).said).toEqual([
      [0, 1, 'm1'],
      [4, 2, 'm2'],
      [8, 3, 'm0'],
    ]);
  });

  test('keep within their channel; what is not finite is the rest value, and its slot is told', () => {
    const { keys, broken } = made({
      channel: 'opacity',
      rest: 0.5,
      cells: [
        ['0f', '-2'],
        ['4f', 'sqrt(-1)'],
        ['8f', '3'],
      ],
    });
    expect(keys.map(({ value }) => value)).toEqual([0, 0.5, 1]);
    expect(broken).toEqual([keys[1].by.slot]);
  });

  test('that is not made on a layer has no keys there, and nothing in it is told', () => {
    const cells = [
      ['0f', 'sqrt(-1)'],
      ['4f', '3'],
    ] as const;
    expect(made({ cells, isOn: true })).toMatchObject({ keys: [{}, {}], broken: ['position.x/m0'] });
    expect(made({ cells, isOn: false })).toMatchObject({ keys: [], broken: [] });
  });

  test('free handles on a channel of shares are shares of the rest value; on others they are as written', () => {
    const ease: PresetEasing = {
      type: 'handles',
      leave: { time: 0.2, value: 0.4 },
      arrive: { time: 0.3, value: -0.2 },
    };
    const cells = [
      ['0f', '0', ease],
      ['8f', 'rest'],
    ] as const;
    const values = (more: Partial<Asked>) => {
      const [{ ease: own }] = made({ cells, ...more }).keys;
      return own.type === 'handles' ? [own.leave.time, own.leave.value, own.arrive.value] : [];
    };
    expect(values({ channel: 'opacity', rest: 0.5 })).toEqual([0.2, 0.2, -0.1]);
    expect(values({ channel: 'opacity', rest: 1 })).toEqual([0.2, 0.4, -0.2]);
    expect(values({ channel: 'opacity', rest: 0 })).toEqual([0.2, 0.4, -0.2]);
    expect(values({ rest: 500 })).toEqual([0.2, 0.4, -0.2]);
  });
});
