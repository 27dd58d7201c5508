import * as z from 'zod';
import { channelIdSchema } from '../channel';
import { easingSchema } from '../easing';
import { idSchema, nameSchema } from '../scene';

export const PHASES = ['entrance', 'accent', 'through', 'exit'] as const;
export type Phase = (typeof PHASES)[number];

export const PARAMETER_KINDS = ['time', 'percent', 'number', 'length', 'angle', 'frequency', 'switch', 'seed'] as const;
export type ParameterKind = (typeof PARAMETER_KINDS)[number];

/** Formula text; checked against the preset's names when the preset is compiled. */
const formulaText = z.string().min(1).max(2000);

export const parameterNameSchema = z
  .string()
  .regex(/^[a-z][A-Za-z0-9_]{0,39}$/, 'A parameter name is letters and digits and begins with a small letter.');

/** A parameter: `default`, limits and step are literals such as "18f", "20%", "on". */
const parameterSchema = z.strictObject({
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
  note: z.string().max(500),
});

const momentSchema = z.strictObject({ id: idSchema, name: nameSchema, at: formulaText });

const cellSchema = z.strictObject({ moment: idSchema, value: formulaText, ease: easingSchema });

const rowSchema = z.strictObject({
  channel: channelIdSchema,
  /** The row counts only while this switch is on. */
  when: parameterNameSchema.optional(),
  cells: z.array(cellSchema).min(1).max(64),
});

/** What a preset hangs on: a layer's in point, its out point, a time of the scene, or its whole span. */
export const HANGS = ['in', 'out', 'time', 'span'] as const;
export type Hang = (typeof HANGS)[number];

/**
 * A parameterised piece of animation: a matrix of moments × channels. Moment times are formulas counted from the
 * preset's beginning; cells are formulas of the layer's value at that moment, with the easing to the row's next cell.
 */
export const presetSchema = z
  .strictObject({
    phase: z.enum(PHASES),
    hang: z.enum(HANGS),
    /** When its layer is stretched, it keeps its length or scales with it. */
    stretch: z.enum(['keep', 'scale']),
    /** The time parameter that is the preset's length; a run that fixes the length sets it. */
    lasts: parameterNameSchema.optional(),
    /** Moments land on whole frames, or exactly where their formulas put them. */
    grid: z.enum(['frames', 'exact']),
    parameters: z.array(parameterSchema).max(60),
    moments: z.array(momentSchema).min(1).max(64),
    rows: z.array(rowSchema).min(1).max(40),
  })
  .superRefine((preset, context) => {
    for (const message of structureProblems(preset)) context.addIssue({ code: 'custom', message });
  });

export type Preset = Readonly<z.infer<typeof presetSchema>>;
export type Parameter = Preset['parameters'][number];
export type Moment = Preset['moments'][number];
export type Row = Preset['rows'][number];

function doubled(values: readonly string[]): string[] {
  return values.filter((value, i) => values.indexOf(value) < i);
}

/** References between the parts of a preset that lead nowhere, and names given twice. */
function structureProblems(preset: Pick<Preset, 'lasts' | 'parameters' | 'moments' | 'rows'>): string[] {
  const moments = preset.moments.map(({ id }) => id);
  const parameters = preset.parameters.map(({ name }) => name);
  const timeNames = preset.parameters.filter(({ kind }) => kind === 'time').map(({ name }) => name);
  const switches = preset.parameters.filter(({ kind }) => kind === 'switch').map(({ name }) => name);
  const strayCells = preset.rows.flatMap(({ cells }) => cells.filter(({ moment }) => !moments.includes(moment)));
  const straySwitches = preset.rows.filter(({ when }) => when !== undefined && !switches.includes(when));
  return [
    ...doubled(moments).map((id) => `The moment “${id}” is there twice.`),
    ...doubled(parameters).map((name) => `The parameter @${name} is there twice.`),
    ...doubled(preset.rows.map(({ channel }) => channel)).map((id) => `The channel ${id} has two rows.`),
    ...preset.rows.flatMap(({ cells, channel }) =>
      doubled(cells.map(({ moment }) => moment)).map((id) => `Row ${channel} has two cells at moment “${id}”.`),
    ),
    ...strayCells.map(({ moment }) => `A cell belongs to the moment “${moment}”, which is not there.`),
    ...straySwitches.map(({ channel, when }) => `Row ${channel} depends on @${when ?? ''}, which is not a switch.`),
    ...(preset.lasts === undefined || timeNames.includes(preset.lasts)
      ? []
      : [`The length is said to be @${preset.lasts}, which is not a time parameter.`]),
  ];
}

/** The channel families that a preset moves, each once, in the order of its rows. */
export function presetChannels(preset: Preset): readonly Row['channel'][] {
  return preset.rows.map(({ channel }) => channel);
}
