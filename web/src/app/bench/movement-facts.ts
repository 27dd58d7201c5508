import {
  DRAW_WAYS,
  FRAMING_WAYS,
  movementFormulas,
  partLimits,
  type Movement,
  type MovementFormula,
} from '@wexikine/core';

const DRAW_WORDS = {
  beginning: 'from its beginning',
  end: 'from its end',
  middle: 'from its middle',
  piece: 'a piece that passes',
};
const FRAMING_WORDS = { all: 'through all of them', turns: 'one way each, by turns' };

/** What can be chosen of a movement besides its numbers: values with their words. */
export function choicesOf({ type }: Movement): readonly (readonly [value: string, words: string])[] {
  switch (type) {
    case 'bounce':
      return [
        ['height', 'let go above'],
        ['speed', 'sets off at a speed'],
      ];
    case 'draw':
      return DRAW_WAYS.map((way) => [way, DRAW_WORDS[way]]);
    case 'framing':
      return FRAMING_WAYS.map((way) => [way, FRAMING_WORDS[way]]);
    default:
      return [];
  }
}

/** Which of the choices is chosen; empty where there is none. */
export function chosenOf(movement: Movement): string {
  if (movement.type === 'bounce') return movement.by;
  return 'way' in movement ? movement.way : '';
}

/** The fields that choose it. */
export function choosing({ type }: Movement, value: string): object {
  return type === 'bounce' ? { by: value } : { way: value };
}

/** Numbers of the movement itself that count as it is set. */
export function numbersOf(movement: Movement): MovementFormula[] {
  return movementFormulas(movement).filter(({ field }) => !field.includes('.') && counts(movement, field));
}

function counts(movement: Movement, field: string): boolean {
  if (movement.type === 'bounce') {
    if (field === 'height') return movement.by === 'height';
    if (field === 'speed') return movement.by === 'speed';
  }
  if (movement.type === 'draw') return movement.way === 'piece';
  if (movement.type === 'framing' && field === 'seed') return movement.way === 'turns';
  return true;
}

/** The numbers of its parts, one list for each; nothing where it has none. */
export function partsOf(movement: Movement): readonly (readonly MovementFormula[])[] {
  if (!('parts' in movement)) return [];
  const all = movementFormulas(movement);
  return movement.parts.map((_, i) => all.filter(({ field }) => field.startsWith(`${i}.`)));
}

/** Whether a part can be taken away, and whether one can be added. */
export function partsFree(movement: Movement): { readonly fewer: boolean; readonly more: boolean } {
  if (!('parts' in movement)) return { fewer: false, more: false };
  const [least, most] = partLimits(movement.type);
  return { fewer: movement.parts.length > least, more: movement.parts.length < most };
}
