import { beforeEach, describe, expect, test } from '@jest/globals';
import type { ClipAnswer, ClipRequest } from './clip-messages';
import { createClips, frameAtTime, heldUntil, MOST_FRAME_PIXELS } from './clips';

const asked: ClipRequest[] = [];
let answer: (data: ClipAnswer) => void = () => undefined;

/** What stands for the worker: it notes what is asked, and answers when it is told to. */
const worker = {
  postMessage: (data: ClipRequest) => asked.push(data),
  addEventListener: (_name: string, listener: (event: { data: ClipAnswer }) => void) => {
    answer = (data) => listener({ data });
  },
} as unknown as Worker;
const clipsFor = (onLoad: () => void = () => undefined) => createClips(onLoad, () => worker);

const frames = [0, 1, 2, 5].map((start) => ({ start, end: start + 1 }));
const bitmap = (width = 100, height = 100): ImageBitmap & { closed: boolean } => {
  const made = { width, height, closed: false, close: () => (made.closed = true) };
  return made as unknown as ImageBitmap & { closed: boolean };
};

describe('which frame is shown', () => {
  test('the one whose time it is, else the one before', () => {
    expect(frameAtTime(frames, 1.5)).toEqual({ frame: frames[1], isRight: true });
    expect(frameAtTime(frames, 2)).toEqual({ frame: frames[2], isRight: true });
    expect(frameAtTime(frames, 4)).toEqual({ frame: frames[2], isRight: false });
    expect(frameAtTime(frames, -1)).toEqual({ frame: frames[0], isRight: false });
    expect(frameAtTime([], 1)).toEqual({ frame: null, isRight: false });
  });

  test('frames follow each other until the first gap', () => {
    expect(heldUntil(frames, 0.5)).toBe(3);
    expect(heldUntil(frames, 3.5)).toBe(3.5);
  });
});

describe('frames at hand', () => {
  beforeEach(() => {
    asked.length = 0;
  });

  test('are asked for once, shown when they come, and more is asked for before they run out', () => {
    let loads = 0;
    const clips = clipsFor(() => loads++);
    expect(clips.frame('files/a', 0, 200)).toBeNull();
    expect(clips.frame('files/a', 0, 200)).toBeNull();
    expect(asked.map(({ at, longest, url }) => [at, longest, url])).toEqual([[0, 256, '/api/files/a']]);
    const first = bitmap();
    answer({ address: 'files/a', start: 0, end: 0.5, longest: 256, bitmap: first });
    expect(loads).toBe(1);
    expect(clips.frame('files/a', 0.1, 200)).toBe(first);
    expect(asked).toHaveLength(1);
    clips.frame('files/a', 0.3, 200);
    expect(asked.at(-1)?.at).toBe(0.5);
    // The last frame stands for whatever comes after it, and nothing more is asked for.
    answer({ address: 'files/a', last: 0 });
    expect(clips.frame('files/a', 9, 200)).toBe(first);
    expect(asked).toHaveLength(2);
  });

  test('are kept within a bound, those nearest to what is drawn the longest', () => {
    const clips = clipsFor();
    clips.frame('files/b', 0, 4000);
    const side = Math.floor(Math.sqrt(MOST_FRAME_PIXELS / 3));
    const all = [0, 1, 2, 3, 4].map((start) => {
      const one = bitmap(side, side);
      answer({ address: 'files/b', start, end: start + 1, longest: 4096, bitmap: one });
      return one;
    });
    expect(all.map(({ closed }) => closed)).toEqual([false, false, false, true, true]);
    expect(clips.frame('files/b', 0.5, 4000)).toBe(all[0]);
  });

  test('a clip that cannot be decoded is not asked for again', () => {
    const clips = clipsFor();
    clips.frame('files/c', 0, 200);
    answer({ address: 'files/c', problem: 'no' });
    clips.frame('files/c', 3, 200);
    expect(asked).toHaveLength(1);
  });
});
