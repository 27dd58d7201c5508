import { describe, expect, test } from '@jest/globals';
import { layerMade } from '../../scene/scene';
import { card } from '../../testing/scenes';
import { saysData, saysLook, saysRest, type Level } from './fold';

/** A run over a layer, by what it makes, and by what stood before and stands after it. */
function level(made: Parameters<typeof layerMade>[1], before: object = {}, after: object = before): Level {
  const [under, over] = [card('a', before), card('a', after)];
  return { entry: { made: layerMade('a', made) }, before: under, met: under, after: over } as unknown as Level;
}

describe('what a run says of a layer', () => {
  test('is what it makes, also where that leaves it as it was', () => {
    expect(saysRest(level({ rest: [['rotation', 4]] }), 'rotation')).toBe(true);
    expect(saysLook(level({ look: { fill: '#102030' } }), 'fill')).toBe(true);
    expect(saysData(level({ data: { role: 'guest' } }), 'role')).toBe(true);
  });

  test('is what was changed by hand over it', () => {
    expect(saysRest(level({}, { rest: { rotation: 1 } }, { rest: { rotation: 2 } }), 'rotation')).toBe(true);
    expect(saysLook(level({}, { look: { fill: '#102030' } }, { look: {} }), 'fill')).toBe(true);
    expect(saysData(level({}, { data: { role: 'host' } }, { data: { role: 'guest' } }), 'role')).toBe(true);
  });

  test('is nothing else', () => {
    const still = level({}, { rest: { rotation: 1 }, look: { fill: '#102030' }, data: { role: 'host' } });
    expect([saysRest(still, 'rotation'), saysLook(still, 'fill'), saysData(still, 'role')]).toEqual([
      false,
      false,
      false,
    ]);
    const other = level({ rest: [['scale.x', 4]], look: { stroke: '#102030' }, data: { name: 'x' } });
    expect([saysRest(other, 'rotation'), saysLook(other, 'fill'), saysData(other, 'role')]).toEqual([
      false,
      false,
      false,
    ]);
  });
});
