import { describe, expect, test } from '@jest/globals';
import {
  createRigRecipe,
  createShelf,
  programmeBoard,
  STARTER_LIBRARY,
  STARTER_RIGS,
  type Parameter,
  type RigRecipe,
} from '@wexikine/core';
import { keyBeside, ownDials, rigWords, settingWords, sharedWords } from './dial-facts';

const shelf = createShelf(STARTER_LIBRARY);
const rig = STARTER_RIGS[0].body;
const plain = createRigRecipe('rig-carry-and-settle', { by: 'rule' });
const own = (...layers: string[]): RigRecipe => ({
  ...plain,
  overrides: Object.fromEntries(layers.map((id) => [id, { parameters: { calm: '9' } }])),
});

describe('the dials of a run', () => {
  test('are shared by all of its layers, but by those that broke away', () => {
    const run = { layers: ['a', 'b', 'c'] };
    expect(sharedWords(run, plain)).toBe('shared by all 3');
    expect(sharedWords(run, own('b'))).toBe('shared by 2 of 3');
    // A layer that takes part no more is not counted.
    expect(sharedWords(run, own('b', 'gone'))).toBe('shared by 2 of 3');
    expect(sharedWords({ layers: ['a'] }, own('a'))).toBe('on 1 layer');
  });

  test('are a layer’s own where it broke away', () => {
    expect(ownDials(rig, own('a'), 'a').map(({ name }) => name)).toEqual(['calm']);
    expect(ownDials(rig, own('a'), 'b')).toEqual([]);
    expect(ownDials(rig, own('a'), null)).toEqual([]);
    expect(ownDials(rig, plain, 'a')).toEqual([]);
  });

  test('that are layers or curves say the name of these, and others what they are set to', () => {
    const board = programmeBoard();
    const dial = (kind: Parameter['kind']) => ({ ...rig.dials[0], kind });
    const said = (kind: Parameter['kind'], text: string, words = text) =>
      settingWords({ dial: dial(kind), text, words }, board, shelf);
    const [{ id, name }] = board.layers;
    expect(said('layer', id)).toBe(name);
    expect(said('layer', 'gone')).toBe('the layer itself');
    const curve = STARTER_LIBRARY.find(({ kind }) => kind === 'curve');
    expect(said('curve', `curve ${curve?.id}`)).toBe(curve?.name);
    expect(said('curve', 'curve gone')).toBe('curve gone');
    expect(said('curve', 'linear')).toBe('linear');
    expect(said('number', '3')).toBe('3');
    expect(said('layer', id, 'along the order')).toBe('along the order');
  });

  test('with keys lead from one to the next', () => {
    const key = (at: number) => ({ at, value: at, ease: { type: 'linear' as const } });
    const keyed: RigRecipe = { ...plain, parameters: { calm: { by: 'keys', keys: [10, 20, 40].map(key) } } };
    expect([5, 10, 15, 39].map((time) => keyBeside(keyed, 'calm', time, 1))).toEqual([10, 20, 20, 40]);
    expect([45, 40, 20, 11].map((time) => keyBeside(keyed, 'calm', time, -1))).toEqual([40, 20, 10, 10]);
    expect([keyBeside(keyed, 'calm', 40, 1), keyBeside(keyed, 'calm', 10, -1)]).toEqual([null, null]);
    expect(keyBeside(keyed, 'pace', 0, 1)).toBeNull();
    expect(keyBeside(own('a'), 'calm', 0, 1)).toBeNull();
  });

  test('come to figures in words where the rig answers motion', () => {
    const rows = rig.dials.map((dial) => ({ dial, text: dial.default }));
    expect(rigWords(rig, shelf, rows)).toMatch(
      /^passes by \d+ % of the way · first peak .* · \d+ swings? · within 1 % /,
    );
    expect(rigWords({ ...rig, formulas: [] }, shelf, rows)).toBe('');
  });
});
