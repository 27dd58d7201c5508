import { describe, expect, test } from '@jest/globals';
import { frameTicks } from '../../basics/time';
import type { Key, Layer } from '../../scene/layer';
import type { RunRecord, Scene } from '../../scene/scene';
import { card, key, PAL, sceneOf } from '../../testing/scenes';
import {
  findMeetings,
  findOffGrid,
  findOutsideLayer,
  findOutsideScene,
  findTwice,
  firstOffGrid,
  intervalOfSide,
  sidesOfRuns,
  type Subject,
} from './keys';

const FRAME = frameTicks(PAL);
const run = (id: string, operation: string): RunRecord => ({ id, recipe: { operation } }) as RunRecord;
const by = (id: string, frame: number, value = 0): Key => ({
  ...key(frame, value),
  by: { run: id, slot: `s${frame}` },
});
const keyed = (id: string, ...keys: Key[]): Layer => card(id, { tracks: { opacity: keys } });
const withRuns = (layers: readonly Layer[], ...runs: RunRecord[]): Scene => ({ ...sceneOf(layers), runs });

/** A layer whose keys a run made from one frame to another. */
function made(layer: Layer, from: number, to: number, before: Layer['tracks'] = {}): Subject {
  return { layer, before, from: from * FRAME, to: to * FRAME };
}

describe('keys outside', () => {
  const span = (from: number, to: number) => ({ span: { in: from * FRAME, out: to * FRAME } });

  test('a layer: the first time that is outside, and by how much at most; what ends on its edge is inside', () => {
    const subjects = [
      made(card('a', span(10, 20)), 10, 20),
      made(card('b', span(10, 20)), 12, 24),
      made(card('c', span(10, 20)), 4, 15),
      made(card('d', span(10, 20)), 12, 21),
    ];
    expect(findOutsideLayer(subjects)).toEqual([
      { code: 'outside-layer', layers: ['b', 'c', 'd'], at: 4 * FRAME, by: 6 * FRAME },
    ]);
    expect(findOutsideLayer(subjects.slice(0, 1))).toEqual([]);
  });

  test('a scene, whatever the span of the layer is', () => {
    const scene = { ...sceneOf([]), length: 100 * FRAME };
    expect(findOutsideScene(scene, [made(card('a', span(0, 5)), 0, 100)])).toEqual([]);
    expect(findOutsideScene(scene, [made(card('a', span(0, 5)), 90, 103), made(card('b'), -1, 8)])).toEqual([
      { code: 'outside-scene', layers: ['a', 'b'], at: -FRAME, by: 3 * FRAME },
    ]);
  });
});

describe('an entrance that meets an exit', () => {
  const scene = withRuns([], run('in', 'bring-in'), run('out', 'send-out'), run('mid', 'accent'));
  const exit = { opacity: [by('mid', 2), by('out', 30), by('out', 40)] };

  test('is where the exit begins before the entrance has ended, seen from both', () => {
    const met = [{ code: 'entrance-meets-exit', layers: ['a'], at: 30 * FRAME, by: 5 * FRAME }];
    expect(findMeetings(scene, [made(card('a'), 0, 35, exit)], 'bring-in')).toEqual(met);
    const entrance = { opacity: [by('in', 0), by('in', 35), by('mid', 90)] };
    expect(findMeetings(scene, [made(card('a'), 30, 40, entrance)], 'send-out')).toEqual(met);
  });

  test('is none where the one ends as the other begins, nothing of the other is there, or the run is neither', () => {
    expect(findMeetings(scene, [made(card('a'), 0, 30, exit)], 'bring-in')).toEqual([]);
    expect(findMeetings(scene, [made(card('a'), 0, 35)], 'bring-in')).toEqual([]);
    expect(findMeetings(scene, [made(card('a'), 0, 35, exit)], 'accent')).toEqual([]);
    expect(findMeetings(withRuns([], run('in', 'bring-in')), [made(card('a'), 0, 35, exit)], 'bring-in')).toEqual([]);
  });
});

describe('what comes in or goes twice', () => {
  const runs = [run('one', 'bring-in'), run('two', 'bring-in'), run('out', 'send-out')];

  test('of one run, layers that another one brings in too, with the first time of that one', () => {
    const layers = [
      keyed('a', by('one', 5), by('two', 8), by('out', 2)),
      keyed('b', by('two', 8), by('out', 9)),
      keyed('c', by('one', 3), key(4, 1)),
    ];
    const scene = withRuns(layers, ...runs);
    expect(findTwice(scene, layers, 'bring-in', 'two')).toEqual([
      { code: 'twice', layers: ['a', 'c'], at: 3 * FRAME, operation: 'bring-in' },
    ]);
    expect(findTwice(scene, layers, 'send-out', 'out')).toEqual([]);
    expect(findTwice(scene, layers, 'accent', 'two')).toEqual([]);
  });

  test('of a whole scene, layers of two runs', () => {
    const layers = [keyed('a', by('one', 5), by('one', 7)), keyed('b', by('two', 8), by('one', 6))];
    expect(findTwice(withRuns(layers, ...runs), layers, 'bring-in', null)).toEqual([
      { code: 'twice', layers: ['b'], at: 6 * FRAME, operation: 'bring-in' },
    ]);
  });
});

describe('keys between frames', () => {
  const between = (run: string, frame: number): Key => ({ ...by(run, frame), at: frame * FRAME + 7 });

  test('are told of the run that makes them, with the first', () => {
    const layers = [
      keyed('a', by('one', 1), between('one', 9)),
      keyed('b', between('two', 2), by('one', 4)),
      keyed('c', between('one', 5), between('one', 6)),
    ];
    const subjects = layers.map((layer) => made(layer, 0, 10));
    expect(findOffGrid(sceneOf(layers), subjects, 'one')).toEqual([
      { code: 'off-grid', layers: ['a', 'c'], at: 5 * FRAME + 7 },
    ]);
    expect(findOffGrid(sceneOf(layers), subjects.slice(1, 2), 'one')).toEqual([]);
    expect(firstOffGrid(layers[1], FRAME)).toBe(2 * FRAME + 7);
  });

  test('are not those that only hold a value up to a jump a tick later', () => {
    const hold: Key = { ...by('one', 3), at: 3 * FRAME - 1, ease: { type: 'hold' } };
    expect(firstOffGrid(keyed('a', hold, by('one', 3)), FRAME)).toBe(Infinity);
    expect(firstOffGrid(keyed('a', hold, by('one', 4)), FRAME)).toBe(3 * FRAME - 1);
    expect(firstOffGrid(keyed('a', { ...hold, ease: { type: 'linear' } }, by('one', 3)), FRAME)).toBe(3 * FRAME - 1);
  });
});

test('the span of one side is that of its own keys, if it is only one', () => {
  const sides = sidesOfRuns(withRuns([], run('in', 'bring-in'), run('out', 'send-out'), run('nod', 'accent')));
  const tracks = {
    opacity: [by('in', 3), key(5, 1), by('nod', 9)],
    rotation: [by('out', 20), by('in', 7), by('out', 2)],
  };
  expect(intervalOfSide(tracks, sides, 'bring-in')).toEqual({ from: 3 * FRAME, to: 7 * FRAME });
  expect(intervalOfSide(tracks, sides, 'send-out')).toEqual({ from: 2 * FRAME, to: 20 * FRAME });
  expect(intervalOfSide({ opacity: [by('out', 4)] }, sides, 'send-out')).toEqual({ from: 4 * FRAME, to: 4 * FRAME });
  expect(intervalOfSide({ opacity: [by('nod', 4), key(9, 1)] }, sides, 'send-out')).toBeNull();
});
