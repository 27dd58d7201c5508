import { expect, test } from '@jest/globals';
import { counted } from '.';

test('one is one, more and none are several, with commas between thousands', () => {
  expect([0, 1, 2, 2_700].map((count) => counted(count, 'key'))).toEqual(['0 keys', '1 key', '2 keys', '2,700 keys']);
  expect([1, 3].map((count) => counted(count, 'copy', 'copies'))).toEqual(['1 copy', '3 copies']);
  expect([1, 3].map((count) => counted(count, 'key stays', 'keys stay'))).toEqual(['1 key stays', '3 keys stay']);
});
