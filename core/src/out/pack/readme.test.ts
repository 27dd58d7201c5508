import { expect, test } from '@jest/globals';
import { recordOf, type ItemRecord } from '../../library/library';
import { STARTER_LIBRARY } from '../../library/starter';
import { readmeOf } from './readme';

/** Items of which some need others, besides the first one of every kind. */
const IDS = [
  'rise-and-settle',
  'pop-exit',
  'loop-the-loop',
  'curve-arrive',
  'house-steady',
  'rig-carry-and-settle',
] as const;

function records(): ItemRecord[] {
  const kinds = [...new Set(STARTER_LIBRARY.map(({ kind }) => kind))];
  const others = kinds.map((kind) => STARTER_LIBRARY.find((item) => item.kind === kind));
  const named = IDS.map((id) => STARTER_LIBRARY.find((item) => item.id === id));
  return [...new Set([...named, ...others])].flatMap((item) => (item ? [recordOf(item)] : []));
}

test('a pack says in words what is in it', () => {
  expect(records().map(({ id }) => id)).toEqual(expect.arrayContaining([...IDS]));
  expect(readmeOf(records()).split('\n')).toMatchSnapshot();
});
