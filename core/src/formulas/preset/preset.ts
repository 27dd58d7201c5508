import * as z from '../../basics/schema';
import { channelIdSchema } from '../../basics/channel';
import { idSchema, nameSchema } from '../../basics/ids';
import { conditionSchema, formulaText, parameterNameSchema, presetEasingSchema, WORD } from './easing';
import { movementChannels, movementSchema } from './movement';
import { structureProblems, unfinishedParts } from './structure';

/** When presets play. */
export const PHASES = ['entrance', 'accent', 'throughout', 'exit'] as const;
/** When a preset plays: as its layer enters, at a time, throughout, or as it leaves. */
export type Phase = (typeof PHASES)[number];

/** A phase; what was written before it had its present name reads as that. */
export const phaseSchema = z
  .enum([...PHASES, 'through'])
  .overwrite((phase) => (phase === 'through' ? 'throughout' : phase)) as unknown as z.ZodType<Phase>;

/** Kinds of parameters. */
export const PARAMETER_KINDS = [
  'time',
  'percent',
  'number',
  'length',
  'angle',
  'frequency',
  'colour',
  'switch',
  'choice',
  'curve',
  'seed',
  'layer',
] as const;
/** What a parameter’s values are. */
export type ParameterKind = (typeof PARAMETER_KINDS)[number];

const optionSchema = z.strictObject({
  name: z.string().regex(WORD, 'An option’s name is letters and digits and begins with a small letter.'),
  label: nameSchema,
});

/**
 * A parameter. `default`, limits and step are literals such as "18f", "20%", "on"; for the kinds that are no numbers
 * a CSS colour, an option's name, an easing as text, or "none" for a layer.
 */
export const parameterSchema = z.strictObject({
  name: parameterNameSchema,
  label: nameSchema,
  kind: z.enum(PARAMETER_KINDS),
  default: formulaText,
  /** Hard limits: values beyond are brought back, and a finding says so. */
  min: formulaText.optional(),
  max: formulaText.optional(),
  /** Soft limits: the range of the slider. */
  from: formulaText.optional(),
  to: formulaText.optional(),
  step: formulaText.optional(),
  /** What a choice chooses from. */
  options: z.array(optionSchema).min(1).max(40).optional(),
  /** Heading under which it stands with others. */
  group: z.string().trim().min(1).max(60).optional(),
  /** The house value whose value is the default; `default` then is what it was last. */
  house: idSchema.optional(),
  note: z.string().max(500),
});

const momentSchema = z.strictObject({ id: idSchema, name: nameSchema, at: formulaText });

const cellSchema = z.strictObject({ moment: idSchema, value: formulaText, ease: presetEasingSchema });

const rowSchema = z.strictObject({
  channel: channelIdSchema,
  /** The row counts only while this holds: a switch, or an option of a choice as `side.left`. */
  when: conditionSchema.optional(),
  cells: z.array(cellSchema).max(64),
});

/** What a preset hangs on: a layer's in point, its out point, a time of the scene, or its whole span. */
export const HANGS = ['in', 'out', 'time', 'span'] as const;
/** Where a preset hangs: at the in point, the out point, a time, or the whole span. */
export type Hang = (typeof HANGS)[number];

const shape = z.strictObject({
  phase: phaseSchema,
  hang: z.enum(HANGS),
  /** When its layer is stretched, it keeps its length or scales with it. */
  stretch: z.enum(['keep', 'scale']),
  /** The time parameter that is the preset's length; a run that fixes the length sets it. */
  lasts: parameterNameSchema.optional(),
  /** Moments land on whole frames, or exactly where their formulas put them. */
  grid: z.enum(['frames', 'exact']),
  /** The entrance whose mirror image this exit is. */
  matches: idSchema.optional(),
  parameters: z.array(parameterSchema).max(60),
  moments: z.array(momentSchema).min(1).max(64),
  rows: z.array(rowSchema).max(40),
  /** What is more than keys at moments. */
  movements: z.array(movementSchema).max(20).optional(),
});

/** A parameterised piece of animation: its moments, its rows of cells, its parameters. */
export interface Preset extends Readonly<z.infer<typeof shape>> {}
/** Something of a preset that runs set. */
export type Parameter = Preset['parameters'][number];
/** One of the options of a choice. */
export type ParameterOption = NonNullable<Parameter['options']>[number];
/** A column of a preset: a named time at which channels take values. */
export type Moment = Preset['moments'][number];
/** A row of a preset: one channel with its cells. */
export type Row = Preset['rows'][number];
/** The value of a channel at a moment, and the easing to the next. */
export type Cell = Row['cells'][number];

function addIssues(messages: readonly string[], context: z.core.$RefinementCtx): void {
  for (const message of messages) context.addIssue({ code: 'custom', message });
}

/** A preset in the making: its parts hang together, but it may lack rows, cells and formulas. */
export const draftPresetSchema: z.ZodType<Preset> = shape.superRefine((preset, context) =>
  addIssues(structureProblems(preset), context),
);

/**
 * A parameterised piece of animation: a matrix of moments × channels. Moment times are formulas counted from the
 * preset's beginning; cells are formulas of the layer's value at that moment, with the easing to the row's next cell.
 */
export const presetSchema: z.ZodType<Preset> = shape.superRefine((preset, context) =>
  addIssues([...structureProblems(preset), ...unfinishedParts(preset)], context),
);

/** The channels that a preset moves, in the order of its rows and its movements. */
export function presetChannels({ rows, movements = [] }: Preset): readonly Row['channel'][] {
  return [...rows.map(({ channel }) => channel), ...movements.flatMap(movementChannels)];
}

/** A preset with nothing in it yet: two moments, a length, no rows. */
export function createPreset(phase: Phase): Preset {
  const hang = ({ entrance: 'in', exit: 'out', accent: 'time', throughout: 'span' } as const)[phase];
  const isThrough = phase === 'throughout';
  const lasts: Parameter = {
    name: 'lasts',
    label: 'Lasts',
    kind: 'time',
    default: '12f',
    min: '1f',
    from: '2f',
    to: '60f',
    step: '1f',
    note: 'stretches every moment',
  };
  return {
    phase,
    hang,
    stretch: isThrough ? 'scale' : 'keep',
    ...(isThrough ? {} : { lasts: 'lasts' }),
    grid: 'frames',
    parameters: isThrough ? [] : [lasts],
    moments: [
      { id: 'start', name: 'Start', at: '0f' },
      { id: 'end', name: phase === 'exit' ? 'Gone' : 'Rest', at: isThrough ? 'layer.length' : '@lasts' },
    ],
    rows: [],
  };
}

/** Parameters as those of a preset without anything else, so that they can be worked out as a preset's are. */
export function presetOfParameters(parameters: readonly Parameter[]): Preset {
  return {
    phase: 'throughout',
    hang: 'span',
    stretch: 'keep',
    grid: 'exact',
    parameters: [...parameters],
    moments: [{ id: 'start', name: 'Start', at: '0f' }],
    rows: [],
  };
}
