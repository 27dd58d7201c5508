import { describe, expect, test } from '@jest/globals';
import { createMovement, MOVEMENT_TYPES, type Movement, type MovementType, type Preset } from '@wexikine/core';
import { choicesOf, choosing, chosenOf, numbersOf, partsFree, partsOf } from './movement-facts';

const PRESET = {
  phase: 'entrance',
  parameters: [],
  moments: [
    { id: 'start', name: 'Start', at: '0f' },
    { id: 'end', name: 'End', at: '20f' },
  ],
  rows: [],
} as unknown as Preset;
const make = (type: MovementType): Movement => createMovement(PRESET, type);
const fields = (movement: Movement): string[] => numbersOf(movement).map(({ field }) => field);

describe('what a card shows of a movement', () => {
  test.each(MOVEMENT_TYPES)('%s: what is chosen is among the choices, and each can be chosen', (type) => {
    const movement = make(type);
    const values = choicesOf(movement).map(([value]) => value);
    if (values.length === 0) return expect(chosenOf(movement)).toBe('');
    expect(values).toContain(chosenOf(movement));
    for (const value of values) {
      expect(chosenOf({ ...movement, ...choosing(movement, value) } as Movement)).toBe(value);
    }
  });

  test('a bounce has the number that it is let go by, and not the other', () => {
    const bounce = make('bounce');
    const by = (value: string): string[] => fields({ ...bounce, ...choosing(bounce, value) } as Movement);
    expect([by('height').includes('height'), by('height').includes('speed')]).toEqual([true, false]);
    expect([by('speed').includes('height'), by('speed').includes('speed')]).toEqual([false, true]);
  });

  test('a drawn outline has numbers only where a piece passes; framings have a seed only by turns', () => {
    const draw = make('draw');
    expect(fields({ ...draw, ...choosing(draw, 'middle') } as Movement)).toEqual([]);
    expect(fields({ ...draw, ...choosing(draw, 'piece') } as Movement).length).toBeGreaterThan(0);
    const framing = make('framing');
    expect(fields({ ...framing, ...choosing(framing, 'turns') } as Movement)).toContain('seed');
    expect(fields({ ...framing, ...choosing(framing, 'all') } as Movement)).not.toContain('seed');
  });

  test('numbers of a part stand with their part; the least number of parts is not gone below', () => {
    const framing = make('framing');
    const parts = partsOf(framing);
    expect(parts.length).toBe('parts' in framing ? framing.parts.length : 0);
    parts.forEach((part, i) => expect(part.every(({ field }) => field.startsWith(`${i}.`))).toBe(true));
    expect(fields(framing).some((field) => field.includes('.'))).toBe(false);
    expect(partsFree(framing)).toEqual({ fewer: false, more: true });
    expect(partsFree(make('bounce'))).toEqual({ fewer: false, more: false });
  });
});
