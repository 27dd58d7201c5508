import { afterEach, describe, expect, test } from '@jest/globals';
import { reorderedBy, RowOrder } from './row-order';

const layers = [
  { layer: 'c', place: 2 },
  { layer: 'a', place: 0 },
  { layer: 'b', place: 1 },
];

describe('a row one place up or down', () => {
  test('goes by the places in the order, however the layers lie', () => {
    expect(reorderedBy(layers, 'b', -1)).toEqual({ layer: 'b', before: 'a' });
    expect(reorderedBy(layers, 'a', 1)).toEqual({ layer: 'a', before: 'c' });
    expect(reorderedBy(layers, 'b', 1)).toEqual({ layer: 'b', before: null });
  });

  test('stays at the ends, and where it has no place', () => {
    expect(reorderedBy(layers, 'a', -1)).toBeNull();
    expect(reorderedBy(layers, 'c', 1)).toBeNull();
    expect(reorderedBy(layers, 'other', 1)).toBeNull();
  });
});

describe('a row that is dragged by its number', () => {
  const over = (id: string | null): void => {
    const closest = (): unknown => (id === null ? null : { dataset: { layer: id } });
    (globalThis as { document?: unknown }).document = { elementFromPoint: () => ({ closest }) };
  };
  const event = {
    preventDefault: () => undefined,
    target: { setPointerCapture: () => undefined },
  } as unknown as PointerEvent;
  afterEach(() => {
    delete (globalThis as { document?: unknown }).document;
  });

  test('comes before the one it is let go on, and stays where it is let go on none or itself, or is given up', () => {
    const told: unknown[] = [];
    const order = new RowOrder((reorder) => told.push(reorder));
    const drag = (onto: string | null, isGivenUp = false): void => {
      over(onto);
      order.grip(event, 'a');
      expect(order.isCarrying()).toBe(true);
      order.carry(event);
      expect(order.target()).toBe(onto);
      if (isGivenUp) order.cancel();
      order.drop();
      expect([order.isCarrying(), order.target()]).toEqual([false, null]);
    };
    drag('c');
    drag('a');
    drag(null);
    drag('b', true);
    expect(told).toEqual([{ layer: 'a', before: 'c' }]);
    // Without a press nothing is carried.
    over('b');
    order.carry(event);
    expect(order.target()).toBeNull();
  });
});
