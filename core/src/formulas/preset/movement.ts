import * as z from '../../basics/schema';
import { channelIdSchema, channelOf, type ChannelId, type ChannelUnit } from '../../basics/channel';
import { idSchema } from '../../basics/ids';
import { pathProblem } from '../../basics/motion';
import { DIMENSIONS, numberOf, type ValueType } from '../formula';
import { conditionSchema, formulaText, presetEasingSchema, type PresetEasing } from './easing';

const { PLAIN, LENGTH, TIME, ANGLE, FREQUENCY } = DIMENSIONS;

/** The fields that every movement has: its name for slots, when it counts, the moment at which it sets out. */
const common = {
  id: idSchema,
  when: conditionSchema.optional(),
  from: idSchema,
  /** Played backwards, as exits that mirror an entrance are. */
  reversed: z.literal(true).optional(),
};

const bounceSchema = z.strictObject({
  ...common,
  type: z.literal('bounce'),
  channel: channelIdSchema,
  /** It is let go above the floor, or leaves the floor at a speed. */
  by: z.enum(['height', 'speed']),
  numbers: z.strictObject({
    height: formulaText,
    speed: formulaText,
    gravity: formulaText,
    restitution: formulaText,
    travel: formulaText,
    squash: formulaText,
    contact: formulaText,
  }),
});

const springSchema = z.strictObject({
  ...common,
  type: z.literal('spring'),
  channel: channelIdSchema,
  numbers: z.strictObject({ start: formulaText, speed: formulaText, pace: formulaText, damping: formulaText }),
});

const swaySchema = z.strictObject({
  ...common,
  type: z.literal('sway'),
  channel: channelIdSchema,
  to: idSchema,
  isLoop: z.boolean(),
  parts: z
    .array(z.strictObject({ rate: formulaText, amount: formulaText }))
    .min(1)
    .max(6),
  numbers: z.strictObject({ fade: formulaText, seed: formulaText, within: formulaText }),
});

/** How a line draws: from its beginning, from its end, from its middle, or a piece that passes. */
export const DRAW_WAYS = ['beginning', 'end', 'middle', 'piece'] as const;

const drawSchema = z.strictObject({
  ...common,
  type: z.literal('draw'),
  to: idSchema,
  way: z.enum(DRAW_WAYS),
  ease: presetEasingSchema,
  numbers: z.strictObject({ piece: formulaText }),
});

/** A picture goes through all framings, or each picture takes one way between two of them, by turns. */
export const FRAMING_WAYS = ['all', 'turns'] as const;

const framingSchema = z.strictObject({
  ...common,
  type: z.literal('framing'),
  to: idSchema,
  way: z.enum(FRAMING_WAYS),
  ease: presetEasingSchema,
  parts: z
    .array(z.strictObject({ x: formulaText, y: formulaText, zoom: formulaText }))
    .min(2)
    .max(12),
  numbers: z.strictObject({ hold: formulaText, seed: formulaText }),
});

/** SVG path data that can be gone along. */
export const pathDataSchema = z
  .string()
  .min(1)
  .max(20_000)
  .superRefine((d, context) => {
    const problem = pathProblem(d);
    if (problem !== null) context.addIssue({ code: 'custom', message: problem });
  });

const pathSchema = z.strictObject({
  ...common,
  type: z.literal('path'),
  to: idSchema,
  /** In px of a frame 1000 wide; the layer rests at 0 0. */
  d: pathDataSchema,
  /** It begins beyond the frame, ends beyond the frame, or is as it is drawn. */
  fit: z.enum(['in', 'out', 'round']),
  turns: z.boolean(),
  ease: presetEasingSchema,
  numbers: z.strictObject({ size: formulaText, begin: formulaText, end: formulaText }),
});

/** A row of a preset that is more than keys at moments. */
export const movementSchema = z.discriminatedUnion('type', [
  bounceSchema,
  springSchema,
  swaySchema,
  drawSchema,
  framingSchema,
  pathSchema,
]);

/** A row of a preset that is more than keys at moments: a bounce, a spring, a sway, a line drawn, framings, a path. */
export type Movement = Readonly<z.infer<typeof movementSchema>>;
/** What a movement is. */
export type MovementType = Movement['type'];
/** A movement of one type. */
export type MovementOf<T extends MovementType> = Extract<Movement, { type: T }>;

/** All types of movements, in the order in which they are offered. */
export const MOVEMENT_TYPES = ['bounce', 'spring', 'sway', 'path', 'framing', 'draw'] as const satisfies MovementType[];

/** One number of a movement: its words, what it must give, and what it begins with. */
export interface MovementNumber {
  readonly label: string;
  readonly note: string;
  readonly standard: string;
  /** `channel` is the unit of the movement's channel, `speed` that per second. */
  readonly type: ValueType | 'channel' | 'speed';
}

const number = (label: string, standard: string, type: MovementNumber['type'], note: string): MovementNumber => ({
  label,
  standard,
  type,
  note,
});

const PLAIN_NUMBER = numberOf(PLAIN);
const A_LENGTH = numberOf(LENGTH);
const A_TIME = numberOf(TIME, true);

interface MovementFacts {
  readonly label: string;
  /** What it does, in a line. */
  readonly note: string;
  /** Units of channels that it can move; null where its channels are its own. */
  readonly units: readonly ChannelUnit[] | null;
  readonly numbers: Readonly<Record<string, MovementNumber>>;
  readonly parts: Readonly<Record<string, MovementNumber>> | null;
}

/** Words, units and beginnings of every movement. */
export const MOVEMENTS: Readonly<Record<MovementType, MovementFacts>> = {
  bounce: {
    label: 'Bounce',
    note: 'falls to where it rests and hops until it is still; each flight is an exact parabola',
    units: ['px'],
    parts: null,
    numbers: {
      height: number(
        'let go from',
        '240px',
        A_LENGTH,
        'how far above where it rests; below 0 it comes from the other side',
      ),
      speed: number('set off at', '1400', numberOf([1, -1, 0]), 'px per second'),
      gravity: number('gravity', '5000', numberOf([1, -2, 0]), 'px per second, each second'),
      restitution: number('gives back', '60%', PLAIN_NUMBER, 'of its speed at each contact, less than 100 %'),
      travel: number('sideways', '0px', A_LENGTH, 'how far it comes from beside where it rests'),
      squash: number('squash', '0%', PLAIN_NUMBER, 'at the first contact, its area kept; less at each one after'),
      contact: number('squashed for', '4f', A_TIME, 'at each contact'),
    },
  },
  spring: {
    label: 'Spring',
    note: 'let go away from where it rests, and at a speed if you like',
    units: ['px', 'deg', 'share', 'number'],
    parts: null,
    numbers: {
      start: number('from', 'here', 'channel', 'where it is let go'),
      speed: number('at', '0', 'speed', 'speed as it is let go, a second'),
      pace: number('swings', '2Hz', numberOf(FREQUENCY), 'to and fro a second, were it not damped'),
      damping: number('damping', '0.3', PLAIN_NUMBER, 'below 1 it swings, at 1 it settles fastest, above it creeps'),
    },
  },
  sway: {
    label: 'Sway',
    note: 'drifts about where it rests, never twice the same way; several rates add up',
    units: ['px', 'deg', 'share', 'number'],
    parts: {
      rate: number('rate', '0.5Hz', numberOf(FREQUENCY), 'how often'),
      amount: number('amount', '20', 'channel', 'at most, to either side'),
    },
    numbers: {
      fade: number('grows over', '0.5s', A_TIME, 'and dies away over as long'),
      seed: number('seed', 'seed + place', PLAIN_NUMBER, 'another seed, another way'),
      within: number('keys within', '1%', PLAIN_NUMBER, 'of the amounts; 0 % sets a key on every frame'),
    },
  },
  draw: {
    label: 'Draw',
    note: 'the outline draws itself',
    units: null,
    parts: null,
    numbers: { piece: number('piece', '20%', PLAIN_NUMBER, 'of the outline, for a piece that passes') },
  },
  framing: {
    label: 'Framing',
    note: 'goes over a picture from one framing to the next, smoothly, and never shows beyond it',
    units: null,
    parts: {
      x: number('across', '50%', PLAIN_NUMBER, 'middle of the framing, of the picture’s width'),
      y: number('down', '50%', PLAIN_NUMBER, 'middle of the framing, of the picture’s height'),
      zoom: number('zoom', '100%', PLAIN_NUMBER, 'how large; 100 % shows all of it'),
    },
    numbers: {
      hold: number('holds for', '0f', A_TIME, 'stands still at the end'),
      seed: number('seed', 'seed', PLAIN_NUMBER, 'which picture takes which way'),
    },
  },
  path: {
    label: 'Path',
    note: 'goes along a line at even speed',
    units: null,
    parts: null,
    numbers: {
      size: number('size', '100%', PLAIN_NUMBER, 'of the line as it is drawn, for a frame 1000 px wide'),
      begin: number('from', '0%', PLAIN_NUMBER, 'of the way'),
      end: number('to', '100%', PLAIN_NUMBER, 'of the way; less stops it before the end'),
    },
  },
};

/** The channel that a movement was given; null where its channels are its own. */
export function givenChannel(movement: Movement): ChannelId | null {
  return 'channel' in movement ? movement.channel : null;
}

/** What a number of a movement must give. */
export function movementNumberType(movement: Movement, { type }: MovementNumber): ValueType {
  if (typeof type === 'object') return type;
  const channel = givenChannel(movement);
  const unit = channel === null ? 'number' : channelOf(channel).unit;
  const [length, time, angle] = unit === 'px' ? LENGTH : unit === 'deg' ? ANGLE : PLAIN;
  return numberOf([length, type === 'speed' ? time - 1 : time, angle]);
}

/** True for a formula that is plainly nothing, so that its channels stay free. */
function isNothing(text: string): boolean {
  return /^\s*-?0+(\.0+)?\s*(px|%|f|s|ms|deg)?\s*$/.test(text);
}

/** The channel across which a bounce travels. */
export function acrossChannel(channel: ChannelId): ChannelId | null {
  if (channel === 'position.y') return 'position.x';
  return channel === 'position.x' ? 'position.y' : null;
}

/** The channels that a movement gives keys to. */
export function movementChannels(movement: Movement): readonly ChannelId[] {
  switch (movement.type) {
    case 'bounce': {
      const across = isNothing(movement.numbers.travel) ? null : acrossChannel(movement.channel);
      const squashed: ChannelId[] = isNothing(movement.numbers.squash) ? [] : ['scale.x', 'scale.y'];
      return [movement.channel, ...(across === null ? [] : [across]), ...squashed];
    }
    case 'spring':
    case 'sway':
      return [movement.channel];
    case 'draw':
      if (movement.way === 'beginning') return ['stroke.end'];
      return movement.way === 'end' ? ['stroke.start'] : ['stroke.start', 'stroke.end'];
    case 'framing':
      return ['crop.x', 'crop.y', 'crop.zoom'];
    case 'path':
      return ['position.x', 'position.y', ...(movement.turns ? (['rotation'] as const) : [])];
  }
}

/** One formula of a movement: the name of its number, or `0.rate` for one of its parts. */
export interface MovementFormula {
  readonly field: string;
  readonly text: string;
  readonly number: MovementNumber;
}

/** All formulas of a movement, in the order in which they are shown. */
export function movementFormulas(movement: Movement): MovementFormula[] {
  const { numbers, parts } = MOVEMENTS[movement.type];
  const own = Object.entries(numbers).map(([field, entry]): MovementFormula => ({
    field,
    text: (movement.numbers as Record<string, string>)[field],
    number: entry,
  }));
  if (parts === null || !('parts' in movement)) return own;
  const listed = movement.parts.flatMap((part, i) =>
    Object.entries(parts).map(([name, entry]): MovementFormula => ({
      field: `${i}.${name}`,
      text: (part as Record<string, string>)[name],
      number: entry,
    })),
  );
  return [...listed, ...own];
}

/** A movement with its formulas changed. */
export function mapMovement(movement: Movement, change: (text: string, field: string) => string): Movement {
  const changed = (numbers: object, prefix = ''): Record<string, string> =>
    Object.fromEntries(Object.entries(numbers).map(([name, text]) => [name, change(text as string, prefix + name)]));
  const parts =
    'parts' in movement
      ? { parts: movement.parts.map((part, i) => changed(part, `${i}.`)) as typeof movement.parts }
      : {};
  return { ...movement, ...parts, numbers: changed(movement.numbers) } as Movement;
}

/** The easing of a movement; null where its law gives it. */
export function movementEase(movement: Movement): PresetEasing | null {
  return 'ease' in movement ? movement.ease : null;
}

/** What a movement is called: "Bounce of position y". */
export function movementLabel(movement: Movement): string {
  const { label } = MOVEMENTS[movement.type];
  const channel = givenChannel(movement);
  return channel === null ? label : `${label} of ${channelOf(channel).label}`;
}
