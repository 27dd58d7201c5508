import { describe, expect, test } from '@jest/globals';
import { isPreset, PHASES, STARTER_LIBRARY, type Preset } from '@wexikine/core';
import { inPhase } from './hanging-form';

const item = STARTER_LIBRARY.filter(isPreset).find(({ body }) => body.phase === 'entrance');
const preset = item?.body as Preset;

describe('a preset of another phase', () => {
  test('starts where that phase does', () => {
    expect(PHASES.map((phase) => [phase, inPhase(preset, phase).hang])).toEqual(
      expect.arrayContaining([
        ['entrance', 'in'],
        ['exit', 'out'],
        ['accent', 'time'],
        ['throughout', 'span'],
      ]),
    );
  });

  test('matches no other preset any more, and is otherwise as it was', () => {
    const matching = { ...preset, matches: 'sink-away' } as Preset;
    const { matches, phase, hang, ...rest } = inPhase(matching, 'exit') as Preset & { matches?: unknown };
    const { matches: _matches, phase: _phase, hang: _hang, ...before } = matching as Preset & { matches?: unknown };
    expect([matches, phase, hang]).toEqual([undefined, 'exit', 'out']);
    expect(rest).toEqual(before);
  });
});
