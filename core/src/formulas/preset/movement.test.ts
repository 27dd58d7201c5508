import { describe, expect, test } from '@jest/globals';
import {
  acrossChannel,
  givenChannel,
  MOVEMENT_TYPES,
  movementChannels,
  movementFormulas,
  MOVEMENTS,
  type Movement,
  type MovementOf,
} from '.';
import { ALONG, BOUNCE } from '../../testing/movements';

const bounce = (numbers: Partial<typeof BOUNCE.numbers>, channel: MovementOf<'bounce'>['channel'] = 'position.y') =>
  movementChannels({ ...BOUNCE, channel, numbers: { ...BOUNCE.numbers, ...numbers } });

describe('channels that a movement gives keys to', () => {
  test('a bounce: its own, the one across where it travels, both scales where it is squashed', () => {
    expect(bounce({})).toEqual(['position.y']);
    expect(bounce({ travel: '40px' })).toEqual(['position.y', 'position.x']);
    expect(bounce({ travel: '40px' }, 'position.x')).toEqual(['position.x', 'position.y']);
    expect(bounce({ squash: '20%' })).toEqual(['position.y', 'scale.x', 'scale.y']);
    // Of a channel that is no place nothing is across.
    expect(bounce({ travel: '40px' }, 'rotation')).toEqual(['rotation']);
    // What is plainly nothing leaves its channels free; what has to be worked out does not.
    for (const nothing of ['0', '0px', ' 0.0 px ', '-0', '00 %', '0f', '0ms'])
      expect(bounce({ travel: nothing })).toHaveLength(1);
    for (const something of ['@far', '0px + 0px', '0.1px', '1', '0em'])
      expect(bounce({ travel: something })).toHaveLength(2);
  });

  test('a line that draws: the end that moves, or both', () => {
    const draw = (way: MovementOf<'draw'>['way']) =>
      movementChannels({
        id: 'd',
        type: 'draw',
        from: 'start',
        to: 'end',
        way,
        ease: { type: 'linear' },
        numbers: { piece: '20%' },
      });
    expect(draw('beginning')).toEqual(['stroke.end']);
    expect(draw('end')).toEqual(['stroke.start']);
    expect(draw('middle')).toEqual(['stroke.start', 'stroke.end']);
    expect(draw('piece')).toEqual(['stroke.start', 'stroke.end']);
  });

  test('a path: where it goes, and its turn where it turns along', () => {
    const path = (turns: boolean) => movementChannels({ ...ALONG, turns });
    expect(path(false)).toEqual(['position.x', 'position.y']);
    expect(path(true)).toEqual(['position.x', 'position.y', 'rotation']);
  });

  test('the one across', () => {
    expect(acrossChannel('position.x')).toBe('position.y');
    expect(acrossChannel('position.y')).toBe('position.x');
    expect(acrossChannel('scale.x')).toBeNull();
  });
});

test('formulas of a movement: its numbers, then those of its parts by their places', () => {
  expect(movementFormulas(BOUNCE).map(({ field, text }) => [field, text])).toEqual(
    Object.keys(MOVEMENTS.bounce.numbers).map((field) => [field, BOUNCE.numbers[field as keyof typeof BOUNCE.numbers]]),
  );
  const sway: Movement = {
    id: 's',
    type: 'sway',
    channel: 'rotation',
    from: 'start',
    to: 'end',
    isLoop: true,
    parts: [
      { rate: '2', amount: '5deg' },
      { rate: '3', amount: '1deg' },
    ],
    numbers: { fade: '0f', seed: '1', within: '6deg' },
  };
  const fields = movementFormulas(sway).map(({ field, text }) => `${field} ${text}`);
  expect(fields).toEqual(
    expect.arrayContaining(['0.rate 2', '0.amount 5deg', '1.rate 3', '1.amount 1deg', 'within 6deg']),
  );
  expect(fields).toHaveLength(7);
  expect(givenChannel(sway)).toBe('rotation');
  expect([...MOVEMENT_TYPES].sort()).toEqual(Object.keys(MOVEMENTS).sort());
});
