import '@angular/compiler';
import { signal } from '@angular/core';
import { describe, expect, test } from '@jest/globals';
import { frameTicks, programmeBoard, type HandPicks, type Layer, type Scene } from '@wexikine/core';
import { STRIP_HEIGHT } from '../sheet/strip-paths';
import { keyRows, type KeyRow, type Reach } from './key-rows';
import { RowsPointer } from './rows-pointer';

const board = programmeBoard();
const FRAME = frameTicks(board.rate);
/** Ten px a frame, from the beginning of the scene. */
const PX = 10;

function keyed(id: string, frames: readonly number[]): Layer {
  const key = (frame: number) => ({ at: frame * FRAME, value: frame, ease: { type: 'linear' as const } });
  const span = { in: 0, out: 90 * FRAME };
  return { ...board.layers[0], id, name: id, span, tracks: { opacity: frames.map(key), rotation: [key(frames[0])] } };
}

/** Rows: of all, then of a, its rotation and opacity, then of b. */
const scene: Scene = {
  ...board,
  runs: [],
  length: 100 * FRAME,
  cues: [{ id: 'c', name: 'Beat', at: 33.25 * FRAME }],
  layers: [keyed('a', [2, 20]), keyed('b', [6, 24])],
};

function pointerOn({
  reach = 'key',
  canEdit = true,
  closed = [] as string[],
}: Partial<{ reach: Reach; canEdit: boolean; closed: string[] }> = {}) {
  const picks = signal<HandPicks>(new Map());
  const moved: number[] = [];
  const rows = signal<readonly KeyRow[]>(keyRows(scene, null, new Set(closed)));
  const pointer = new RowsPointer({
    rows,
    standing: signal(scene),
    picks,
    reach: signal(reach),
    canEdit: signal(canEdit),
    time: signal(70 * FRAME),
    axis: {
      xOf: ({ clientX }) => clientX,
      timeAt: (x) => (x / PX) * FRAME,
      ticksOf: (px) => (px / PX) * FRAME,
    },
    yOf: ({ clientY }) => clientY,
    pick: (wanted) => picks.set(wanted),
    moveBy: (by) => void moved.push(by / FRAME),
  });
  const at = (frame: number, row = 0, held: Partial<PointerEvent> = {}) => ({
    clientX: frame * PX,
    clientY: (row + 0.5) * STRIP_HEIGHT,
    shiftKey: false,
    ctrlKey: false,
    metaKey: false,
    altKey: false,
    ...held,
  });
  return {
    pointer,
    moved,
    at,
    press: (frame: number, row: number, held: Partial<PointerEvent> = {}) =>
      pointer.press(at(frame, row, held), rows()[row]),
    /** What is picked: layer, channel and frames. */
    told: () =>
      [...picks()].flatMap(([id, own]) =>
        [...own].map(([channel, times]) => `${id} ${channel} ${[...times].map((time) => time / FRAME).join(' ')}`),
      ),
  };
}

const [A, A_OPACITY, B] = [1, 3, 4];

describe('a press on rows of keys', () => {
  test('picks the key within six pixels, in its row alone', () => {
    const { press, told } = pointerOn();
    press(20.6, A_OPACITY);
    expect(told()).toEqual(['a opacity 20']);
    press(2, A);
    expect(told()).toEqual(['a opacity 2', 'a rotation 2']);
    press(20.7, A_OPACITY);
    expect(told()).toEqual([]);
  });

  test('with Shift or Ctrl picks more, or one less; beside keys it keeps what is picked', () => {
    const { press, told } = pointerOn();
    press(20, A_OPACITY);
    press(24, B, { shiftKey: true });
    expect(told()).toEqual(['a opacity 20', 'b opacity 24']);
    press(20, A_OPACITY, { ctrlKey: true });
    expect(told()).toEqual(['b opacity 24']);
    press(50, B, { metaKey: true });
    expect(told()).toEqual(['b opacity 24']);
  });

  test('on one of several that are picked takes hold of all of them', () => {
    const { press, told, pointer } = pointerOn();
    press(20, A_OPACITY);
    press(24, B, { shiftKey: true });
    press(20, A_OPACITY);
    expect(told()).toEqual(['a opacity 20', 'b opacity 24']);
    expect(pointer.drag()).toEqual({ x: 200, at: 20 * FRAME, by: 0 });
  });

  test('picks a moment on all, or all that is later, where that is asked for or Alt is held', () => {
    const { press, told } = pointerOn();
    press(20, A, { altKey: true });
    expect(told()).toEqual(['a opacity 20', 'b opacity 24']);
    const later = pointerOn({ reach: 'later' });
    later.press(2, A);
    expect(later.told()).toEqual(['a opacity 2 20', 'a rotation 2', 'b opacity 6 24', 'b rotation 6']);
  });
});

describe('keys that are dragged in their rows', () => {
  const dragged = (to: number, held: Partial<PointerEvent> = {}, canEdit = true) => {
    const { press, pointer, moved, at } = pointerOn({ canEdit });
    press(20, A_OPACITY);
    pointer.move(at(to, A_OPACITY, held));
    const by = pointer.drag()?.by;
    pointer.release();
    expect(pointer.drag()).toBeNull();
    return [by === undefined ? null : by / FRAME, moved];
  };

  test('go by whole frames, and are moved once they are let go', () => {
    expect(dragged(42.3)).toEqual([22, [22]]);
    expect(dragged(13.8)).toEqual([-6, [-6]]);
    expect(dragged(20.2)).toEqual([0, []]);
  });

  test('take the time of a cue, the playhead, an end or another key where they come near; with Ctrl they do not', () => {
    expect(dragged(33.5)).toEqual([13.25, [13.25]]);
    expect(dragged(33.5, { ctrlKey: true })).toEqual([14, [14]]);
    expect(dragged(70.6)).toEqual([50, [50]]);
    expect(dragged(89.45)).toEqual([70, [70]]);
    expect(dragged(99.45)).toEqual([80, [80]]);
    expect(dragged(6.55)).toEqual([-14, [-14]]);
    expect(dragged(6.55, { metaKey: true })).toEqual([-13, [-13]]);
  });

  test('stay where they are where the drag is given up, as a band picks nothing then', () => {
    const { press, pointer, moved, at, told } = pointerOn();
    press(20, A_OPACITY);
    pointer.move(at(42, A_OPACITY));
    pointer.cancel();
    pointer.move(at(50, A_OPACITY));
    pointer.release();
    expect([pointer.drag(), moved, told()]).toEqual([null, [], ['a opacity 20']]);
    press(1, A_OPACITY);
    pointer.move(at(30, A_OPACITY));
    pointer.cancel();
    pointer.release();
    expect([pointer.band(), told()]).toEqual([null, []]);
  });

  test('stay where they are while a dry run is shown', () => {
    expect(dragged(42, {}, false)).toEqual([null, []]);
  });
});

describe('a band around keys', () => {
  const banded = (from: readonly [number, number], to: readonly [number, number], closed: string[] = []) => {
    const { pointer, at, press, told } = pointerOn({ closed });
    press(...from);
    pointer.move(at(...to));
    expect(pointer.band()).not.toBeNull();
    pointer.release();
    expect(pointer.band()).toBeNull();
    return told();
  };

  test('picks the keys of channels in it, from whatever corner it is drawn', () => {
    expect(banded([1, A_OPACITY], [10, A_OPACITY])).toEqual(['a opacity 2']);
    expect(banded([30, A_OPACITY], [1, A_OPACITY - 1])).toEqual(['a rotation 2', 'a opacity 2 20']);
    expect(banded([30, B], [10, A_OPACITY])).toEqual(['a opacity 20']);
  });

  test('takes a closed layer for its channels, and an open one only where nothing else is in it', () => {
    expect(banded([30, A], [1, A], ['a', 'b'])).toEqual(['a opacity 2 20', 'a rotation 2']);
    expect(banded([30, B], [10, B])).toEqual(['b opacity 24']);
  });

  test('adds to what is picked where Shift is held', () => {
    const { pointer, at, press, told } = pointerOn();
    press(24, B);
    pointer.release();
    press(30, A_OPACITY, { shiftKey: true });
    pointer.move(at(15, A_OPACITY));
    pointer.release();
    expect(told()).toEqual(['b opacity 24', 'a opacity 20']);
  });

  test('a whole row is picked by the keyboard, or taken away again', () => {
    const { pointer, told } = pointerOn();
    const [, row] = keyRows(scene, null, new Set());
    pointer.pickRow(row, false);
    expect(told()).toEqual(['a opacity 2 20', 'a rotation 2']);
    pointer.pickRow(row, true);
    expect(told()).toEqual([]);
  });
});
