import type { Parameter } from '../../formulas/preset';
import type { AdjustRecipe, AdjustStep, AdjustType, Pivot } from './adjust-recipe';

/** One number of a step: how it is named, what it is, what it begins with. */
type Number = Pick<Parameter, 'name' | 'label' | 'kind' | 'default' | 'min' | 'max' | 'from' | 'to' | 'step' | 'note'>;

interface StepFacts {
  readonly label: string;
  /** What it does, in a line. */
  readonly note: string;
  readonly numbers: readonly Number[];
}

const time = (name: string, label: string, standard: string, note = '', limits: Partial<Number> = {}): Number => ({
  name,
  label,
  kind: 'time',
  default: standard,
  from: '-50f',
  to: '50f',
  step: '1f',
  note,
  ...limits,
});
const percent = (name: string, label: string, standard: string, limits: Partial<Number> = {}): Number => ({
  name,
  label,
  kind: 'percent',
  default: standard,
  from: '0%',
  to: '200%',
  step: '1%',
  note: '',
  ...limits,
});
const amount = (name: string, label: string, standard: string, note = 'px, degrees or per cent'): Number => ({
  name,
  label,
  kind: 'number',
  default: standard,
  from: '-200',
  to: '200',
  step: '1',
  note,
});

/** Words and numbers of every step, in the order in which they are offered. */
export const ADJUST_STEPS: Readonly<Record<AdjustType, StepFacts>> = {
  shift: { label: 'Shift', note: 'later or earlier', numbers: [time('by', 'By', '3f', 'below 0 is earlier')] },
  stretch: {
    label: 'Stretch',
    note: 'longer or shorter about a pivot',
    numbers: [percent('to', 'To', '120%', { min: '0.1%', from: '10%', to: '300%' })],
  },
  fit: {
    label: 'Fit to a length',
    note: 'each layer’s keys last so long',
    numbers: [time('length', 'Length', '1s', '', { min: '0f', from: '1f', to: '100f' })],
  },
  window: {
    label: 'Fit to a window',
    note: 'each layer’s keys fill the time from … to',
    numbers: [
      time('from', 'From', '0s', '', { from: '0f', to: '250f' }),
      time('to', 'To', '2s', '', { from: '0f', to: '250f' }),
    ],
  },
  restagger: {
    label: 'Restagger',
    note: 'the starts anew along the order; each keeps its own shape',
    numbers: [time('gap', 'One every', '4f', '', { from: '0f', to: '50f' })],
  },
  'close-gaps': {
    label: 'Close gaps',
    note: 'each begins as the one before it ends',
    numbers: [time('gap', 'Gap', '0f', 'below 0 they overlap')],
  },
  hold: {
    label: 'Hold',
    note: 'the pose at each picked moment stands; all that follows moves later',
    numbers: [time('for', 'For', '30f', '', { min: '0f', from: '0f', to: '100f' })],
  },
  'move-later': {
    label: 'Insert or take out time',
    note: 'for all keys from a time on',
    numbers: [
      time('at', 'From', '1s', 'time of the scene', { from: '0f', to: '250f' }),
      time('by', 'By', '10f', 'below 0 takes time out'),
    ],
  },
  reverse: { label: 'Reverse', note: 'backwards, with its easings', numbers: [] },
  retime: { label: 'Retime', note: 'slow here, fast there, by a curve; the ends stay', numbers: [] },
  spread: { label: 'Spread evenly', note: 'between the first and the last', numbers: [] },
  jitter: {
    label: 'Jitter',
    note: 'a little off, by seed',
    numbers: [
      time('time', 'Time', '2f', 'at most, to either side', { min: '0f', from: '0f', to: '25f' }),
      amount('value', 'Value', '0', 'at most, to either side; px, degrees or per cent'),
    ],
  },
  'whole-frames': { label: 'Whole frames', note: 'the nearest one', numbers: [] },
  conform: {
    label: 'From another frame rate',
    note: 'keys keep the number of their frame',
    numbers: [amount('rate', 'Frames a second then', '24', 'frames a second')],
  },
  'to-cues': { label: 'To cues', note: 'the nearest one', numbers: [] },
  ease: { label: 'Easing', note: 'every picked key leaves by it', numbers: [] },
  strengths: {
    label: 'Strengths',
    note: 'how softly keys are left and reached',
    numbers: [
      percent('leave', 'Departure', '50%', { from: '-100%', to: '100%' }),
      percent('reach', 'Arrival', '50%', { from: '-100%', to: '100%' }),
    ],
  },
  freeze: { label: 'Freeze', note: 'each pose holds until the next', numbers: [] },
  scale: {
    label: 'Scale values',
    note: 'larger or smaller about rest',
    numbers: [percent('to', 'To', '50%', { from: '-200%', to: '300%' })],
  },
  offset: { label: 'Offset values', note: 'by so much', numbers: [amount('by', 'By', '20')] },
  mirror: { label: 'Mirror values', note: 'to the other side of rest', numbers: [] },
  limit: {
    label: 'Limit values',
    note: 'not below, not above',
    numbers: [amount('low', 'At least', '-100'), amount('high', 'At most', '100')],
  },
  'limit-speed': {
    label: 'Limit speed',
    note: 'values come nearer where motion is faster; times stay',
    numbers: [
      { ...amount('most', 'At most', '500', 'px, degrees or per cent a second'), min: '0', from: '0', to: '2000' },
    ],
  },
  'limit-acceleration': {
    label: 'Limit acceleration',
    note: 'values come nearer where motion starts or stops harder; times stay',
    numbers: [
      {
        ...amount('most', 'At most', '4000', 'px, degrees or per cent a second, each second'),
        min: '0',
        from: '0',
        to: '20000',
      },
    ],
  },
  smooth: {
    label: 'Smooth',
    note: 'towards the middle of the neighbours',
    numbers: [percent('by', 'By', '50%', { to: '100%' })],
  },
  'thin-out': {
    label: 'Thin out',
    note: 'fewer keys for the same motion',
    numbers: [amount('within', 'Within', '0.5')],
  },
};

/** All steps, in the order in which they are offered. */
export const ADJUST_TYPES = Object.keys(ADJUST_STEPS) as readonly AdjustType[];

/** Name of a step's number among the parameters of the recipe. */
export function stepNumber(id: string, name: string): string {
  return `${id}_${name}`;
}

/** The numbers of an adjustment's steps as parameters, which may differ from layer to layer as those of presets may. */
export function adjustParameters({ steps }: Pick<AdjustRecipe, 'steps'>): Parameter[] {
  return steps.flatMap(({ id, type }) => {
    const { label, numbers } = ADJUST_STEPS[type];
    return numbers.map((number): Parameter => ({
      ...number,
      name: stepNumber(id, number.name),
      label: `${label}: ${number.label.toLowerCase()}`,
    }));
  });
}

const FIRST: Pivot = { by: 'first' };

/** A step as it begins, with a name of its own. */
export function createStep(type: AdjustType, taken: readonly string[]): AdjustStep {
  let number = taken.length + 1;
  while (taken.includes(`s${number}`)) number++;
  const id = `s${number}`;
  switch (type) {
    case 'stretch':
    case 'fit':
      return { id, type, pivot: FIRST };
    case 'spread':
      return { id, type, of: 'time' };
    case 'retime':
      return { id, type, ease: { type: 'bezier', x1: 0.35, y1: 0, x2: 0.65, y2: 1 } };
    case 'ease':
      return { id, type, ease: { type: 'bezier', x1: 0.35, y1: 0, x2: 0.65, y2: 1 } };
    case 'scale':
      return { id, type, about: 'rest' };
    case 'strengths':
      return { id, type, way: 'set', parts: 'both' };
    default:
      return { id, type };
  }
}

/** Adds a step at the end, with its numbers as they begin. */
export function addStep(recipe: AdjustRecipe, type: AdjustType): AdjustRecipe {
  const added = createStep(
    type,
    recipe.steps.map(({ id }) => id),
  );
  const numbers = ADJUST_STEPS[type].numbers.map(
    ({ name, default: standard }) => [stepNumber(added.id, name), { by: 'fixed' as const, value: standard }] as const,
  );
  return {
    ...recipe,
    steps: [...recipe.steps, added],
    parameters: { ...recipe.parameters, ...Object.fromEntries(numbers) },
  };
}

/** Takes a step away, with its numbers; the last one stays. */
export function removeStep(recipe: AdjustRecipe, id: string): AdjustRecipe {
  if (recipe.steps.length <= 1) return recipe;
  const kept = Object.entries(recipe.parameters).filter(([name]) => !name.startsWith(`${id}_`));
  return {
    ...recipe,
    steps: recipe.steps.filter((one) => one.id !== id),
    parameters: Object.fromEntries(kept),
  };
}
