import { CONSTANTS, FUNCTIONS, UNITS, type Preset, type Scope } from '@wexikine/core';

/** Something that can be completed while a formula is typed. */
export interface Completion {
  readonly label: string;
  readonly detail: string;
  readonly type: 'parameter' | 'name' | 'function' | 'word' | 'unit';
  /** What is written, where it is more than the label. */
  readonly apply?: string;
}

const NAME_NOTES: Readonly<Record<string, string>> = {
  rest: 'the layer’s value in its rest pose',
  t: 'time since the in point',
  clock: 'time of the scene',
  keyed: 'what the keys give now, and earlier rigs',
  since: 'time since the last key',
  until: 'time to the next key',
  arrival: 'speed at which the last key was reached',
  here: 'the value where the preset begins',
  place: 'place in the order, 0 first',
  count: 'how many layers take part',
  share: '0 to 1 along the order',
  seed: 'the run’s seed',
  'layer.width': 'px',
  'layer.height': 'px',
  'layer.length': 'from its in point to its out point',
  'layer.letters': 'how many letters its words have',
  'layer.left': 'edge in the frame, px',
  'layer.right': 'edge in the frame, px',
  'layer.top': 'edge in the frame, px',
  'layer.bottom': 'edge in the frame, px',
  'layer.x': 'its anchor’s place in the frame, px',
  'layer.y': 'its anchor’s place in the frame, px',
  'frame.width': 'px',
  'frame.height': 'px',
};

const CONSTANT_NOTES: Readonly<Record<string, string>> = {
  pi: '3.14159…',
  tau: 'twice pi',
  turn: '360°',
  on: 'yes',
  off: 'no',
  s: 'one second: 40px/s is a speed',
};

const UNIT_NOTES: Readonly<Record<string, string>> = {
  '%': 'per cent',
  px: 'pixels',
  f: 'frames',
  s: 'seconds',
  ms: 'milliseconds',
  deg: 'degrees',
  Hz: 'times a second',
};

const WORDS = ['if', 'then', 'else', 'and', 'or', 'not', 'mod', 'let'];

/** What a channel of a role is: "leader.position.x", "before.rest". */
function roleNote(name: string): string {
  const [role, ...rest] = name.split('.');
  if (role === 'each') return `its own ${rest.join(' ')}`;
  if (role === 'before') return `${rest.join(' ')} of the one before it`;
  return rest[0] === 'rest' ? `where ${role} rests` : `${rest.join(' ')} of ${role}`;
}

/** Everything that can stand where a formula of a scope is typed. */
export function completionsFor(scope: Scope, { parameters }: Pick<Preset, 'parameters'>): Completion[] {
  const labels = new Map(parameters.map(({ name, label }) => [name, label]));
  const mentioned = [...scope.parameters.keys()].map((name): Completion => {
    const label = labels.get(name.split('.')[0]) ?? '';
    return { label: `@${name}`, detail: label, type: 'parameter' };
  });
  const names = [...scope.names.keys()].map((name): Completion => ({
    label: name,
    detail: NAME_NOTES[name] ?? roleNote(name),
    type: 'name',
  }));
  const functions = Object.entries(FUNCTIONS).map(([name, { describe }]): Completion => ({
    label: name,
    detail: describe,
    type: 'function',
    apply: `${name}(`,
  }));
  const constants = Object.keys(CONSTANTS).map((label): Completion => ({
    label,
    detail: CONSTANT_NOTES[label] ?? '',
    type: 'name',
  }));
  const words = WORDS.map((label): Completion => ({ label, detail: '', type: 'word' }));
  return [...mentioned, ...names, ...constants, ...functions, ...words];
}

/** Units that can follow a number: "12" → "12f", "12px"; first the number alone, which Enter keeps as it is. */
export function unitCompletions(number: string): Completion[] {
  const units = Object.keys(UNITS).filter((unit) => UNIT_NOTES[unit] !== undefined);
  return [
    { label: number, detail: 'just the number', type: 'unit' },
    ...units.map((unit): Completion => ({ label: number + unit, detail: UNIT_NOTES[unit], type: 'unit' })),
  ];
}
