import { expect, test } from '@jest/globals';
import { parseEasing } from '.';

// CSS Easing Functions Level 2, section 2.2: inputs that are missing are spread evenly between those that are there.
test('missing inputs of linear() are spread evenly between those that are given', () => {
  const read = parseEasing('linear(0, 0.2 40%, 0.3, 0.5, 1 70%, 1)');
  const points = read.ok && read.easing.type === 'points' ? read.easing.points : [];
  expect(points.map(({ input }) => Number(input.toFixed(6)))).toEqual([0, 0.4, 0.5, 0.6, 0.7, 1]);
});
