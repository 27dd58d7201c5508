import { expect, test } from '@jest/globals';
import type { CutOut } from '@wexikine/core';
import { createCutOuts, type CutOutAsked } from './cut-outs';
import type { Cutting } from './cutting';
import type { PictureSource } from './picture-source';

const picture = { width: 4, height: 4 } as PictureSource;

function asked(tolerance: number, more: Partial<CutOutAsked> = {}): CutOutAsked {
  const how: CutOut = { what: { by: 'dark' }, tolerance, softness: 0.1, spill: 0 };
  return { layer: 'a', address: 'files/one.png', picture, how, isView: false, ...more };
}

function bitmapOf(tolerance: number): ImageBitmap {
  return { width: 4, height: 4, tolerance, close: () => undefined } as unknown as ImageBitmap;
}

/** Work that ends when it is told to. */
function setUp(): {
  cutOuts: ReturnType<typeof createCutOuts>;
  begun: number[];
  end: (isFine?: boolean) => Promise<void>;
  ready: () => number;
} {
  const begun: number[] = [];
  let ends: ((isFine: boolean) => void)[] = [];
  let ready = 0;
  const cutting: Cutting = (_, { tolerance }) => {
    begun.push(tolerance);
    return new Promise((resolve, reject) => {
      ends.push((isFine) => (isFine ? resolve(bitmapOf(tolerance)) : reject(new Error('no'))));
    });
  };
  const end = async (isFine = true): Promise<void> => {
    const all = ends;
    ends = [];
    for (const one of all) one(isFine);
    await new Promise((done) => setTimeout(done, 0));
  };
  return { cutOuts: createCutOuts(cutting, () => ready++), begun, end, ready: () => ready };
}

test('a picture is cut out once and then at hand; what was shown before stands in', async () => {
  const { cutOuts, begun, end, ready } = setUp();
  expect(cutOuts(asked(0.1))).toBeNull();
  await end();
  expect(ready()).toBe(1);
  expect(cutOuts(asked(0.1))).toMatchObject({ tolerance: 0.1 });
  expect(cutOuts(asked(0.2))).toMatchObject({ tolerance: 0.1 });
  // Another picture does not stand in.
  expect(cutOuts(asked(0.2, { address: 'files/two.png' }))).toBeNull();
  await end();
  await end();
  expect(begun).toEqual([0.1, 0.2, 0.2]);
});

test('of what waits for a layer only the newest is worked out, and what cannot be is not tried again', async () => {
  const { cutOuts, begun, end } = setUp();
  for (const tolerance of [0.1, 0.2, 0.3, 0.4]) cutOuts(asked(tolerance));
  await end();
  await end();
  expect(begun).toEqual([0.1, 0.4]);
  cutOuts(asked(0.9));
  await end(false);
  expect(cutOuts(asked(0.9))).toBeNull();
  expect(begun).toEqual([0.1, 0.4, 0.9]);
});
