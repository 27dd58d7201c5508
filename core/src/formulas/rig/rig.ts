import * as z from '../../basics/schema';
import { channelIdSchema, type ChannelId } from '../../basics/channel';
import { parameterNameSchema, parameterSchema, presetOfParameters, type Parameter, type Preset } from '../preset';

/** Roles that every rig knows: the layer itself, and the one before it in the order of the run. */
export const KNOWN_ROLES = ['each', 'before'] as const;

const roleSchema = z.strictObject({
  name: parameterNameSchema,
  note: z.string().max(500),
});

const formulaSchema = z.strictObject({
  /** The channels that it gives, all by the same text: position x and y as one. */
  channels: z.array(channelIdSchema).min(1).max(8),
  text: z.string().max(2_000),
});

const shape = z.strictObject({
  dials: z.array(parameterSchema).max(60),
  /** Layers that are named when the rig is applied, besides each of those that it drives. */
  roles: z.array(roleSchema).max(12),
  formulas: z.array(formulaSchema).max(31),
});

/** Dials and formulas that drive channels. */
export interface Rig extends Readonly<z.infer<typeof shape>> {}
/** A formula of a rig, with the channels that it gives. */
export type RigFormula = Rig['formulas'][number];
/** A layer that a rig reads, by the name that its formulas have for it. */
export type RigRole = Rig['roles'][number];

function twice(names: readonly string[]): string | null {
  return names.find((name, i) => names.indexOf(name) !== i) ?? null;
}

/** What does not hang together in a rig, as sentences. */
export function rigProblems({ dials, roles, formulas }: Rig): string[] {
  const dial = twice(dials.map(({ name }) => name));
  const role = twice([...KNOWN_ROLES, ...roles.map(({ name }) => name)]);
  const channel = twice(formulas.flatMap(({ channels }) => channels));
  return [
    ...(dial === null ? [] : [`Two dials are called @${dial}. Give each a name of its own.`]),
    ...(role === null ? [] : [`Two roles are called ${role}. Give each a name of its own.`]),
    ...(channel === null ? [] : [`Two formulas drive ${channel}. Keep one of them.`]),
  ];
}

function addIssues(messages: readonly string[], context: z.core.$RefinementCtx): void {
  for (const message of messages) context.addIssue({ code: 'custom', message });
}

/** A rig in the making: it may lack formulas. */
export const draftRigSchema: z.ZodType<Rig> = shape.superRefine((rig, context) => addIssues(rigProblems(rig), context));

/** Dials and formulas that drive channels of many layers, live. */
export const rigSchema: z.ZodType<Rig> = shape.superRefine((rig, context) =>
  addIssues(
    [
      ...rigProblems(rig),
      ...(rig.formulas.length === 0 ? ['A rig needs a formula for at least one channel.'] : []),
      ...rig.formulas
        .filter(({ text }) => text.trim() === '')
        .map(({ channels }) => `The formula for ${channels.join(' and ')} is empty.`),
    ],
    context,
  ),
);

/** The channels that a rig drives. */
export function rigChannels({ formulas }: Rig): readonly ChannelId[] {
  return formulas.flatMap(({ channels }) => channels);
}

/** The dials of a rig as parameters of a preset without anything else: they vary from layer to layer as those do. */
export function dialsPreset({ dials }: Pick<Rig, 'dials'>): Preset {
  return presetOfParameters(dials);
}

/** A rig with nothing in it yet but one dial and one formula that adds it. */
export function createRig(): Rig {
  const amount: Parameter = {
    name: 'amount',
    label: 'Amount',
    kind: 'length',
    default: '20px',
    from: '0px',
    to: '100px',
    note: 'how far it goes',
  };
  return { dials: [amount], roles: [], formulas: [{ channels: ['position.y'], text: 'keyed + @amount' }] };
}

/** A name for something new beside others: amount, amount2, amount3. */
export function freeName(wanted: string, taken: readonly string[]): string {
  for (let n = 1; ; n++) {
    const name = n === 1 ? wanted : `${wanted}${n}`;
    if (!taken.includes(name)) return name;
  }
}

const read = new WeakMap<object, Rig | null>();

/** The rig that a record keeps as data; null where it is none. The same data gives the same rig, which is compiled once. */
export function rigIn(body: object): Rig | null {
  const known = read.get(body);
  if (known !== undefined) return known;
  const parsed = draftRigSchema.safeParse(body);
  const rig = parsed.success ? parsed.data : null;
  read.set(body, rig);
  return rig;
}
