import * as z from '../../basics/schema';
import { channelIdSchema, type ChannelId } from '../../basics/channel';
import {
  formulaText,
  parameterNameSchema,
  parameterSchema,
  presetOfParameters,
  structureProblems,
  type Preset,
} from '../../formulas/preset';
import { filesOfMask, lookSchema, type Layer, type Mask } from '../../scene/layer';
import { STYLED_COLOURS, STYLE_PARTS, type StylePart } from '../../scene/recipe';

/** A library goes where files of scenes do not. */
function isOfLibrary(mask: Mask): boolean {
  return filesOfMask(mask).length === 0;
}

/**
 * A look that is kept in the library: the parts of a look that it sets, what they are, and the numbers that belong to them. A
 * part that it names and does not have is taken away where it is put on.
 */
const shape = z.strictObject({
  parts: z.array(z.enum(STYLE_PARTS)).min(1, 'A look has at least one part.').max(STYLE_PARTS.length),
  /** A matte is another layer of a scene, which a library does not have. */
  look: lookSchema.omit({ matte: true }).refine(({ masks = [] }) => masks.every(isOfLibrary), {
    error:
      'A look of the library has no masks by pictures or by words in a font of one’s own: those are files of scenes.',
  }),
  rest: z.partialRecord(channelIdSchema, z.number().min(-1e9).max(1e9)),
  /** What runs set of it. */
  parameters: z.array(parameterSchema).max(30).optional(),
  /** Numbers that hang on parameters and on the layer: formulas as cells of presets are. They stand before those of `rest`. */
  formulas: z
    .array(z.strictObject({ channel: channelIdSchema, text: formulaText }))
    .max(60)
    .optional(),
  /** Colours that are those of a parameter, which stands before the colour in the look. */
  colours: z.partialRecord(z.enum(STYLED_COLOURS), parameterNameSchema).optional(),
});

/** A look that is kept in the library: its parts, and what of them hangs on its parameters. */
export type KeptLook = Readonly<z.infer<typeof shape>>;

const presets = new WeakMap<KeptLook, Preset>();

/** A look's parameters and formulas as a preset's, so that they are worked out as those are; the same one for the same look. */
export function lookPreset(look: KeptLook): Preset {
  const before = presets.get(look);
  if (before) return before;
  const { parameters = [], formulas = [] } = look;
  const preset: Preset = {
    ...presetOfParameters(parameters),
    rows: formulas.map(({ channel, text }) => ({
      channel,
      cells: [{ moment: 'start', value: text, ease: { type: 'hold' } }],
    })),
  };
  presets.set(look, preset);
  return preset;
}

/** A look that is a preset's parameters and rows again; one without any is plain. A colour's parameter may have another name now. */
export function lookFromPreset(look: KeptLook, { parameters, rows }: Preset): KeptLook {
  const { parameters: before = [], formulas: _formulas, colours: tied = {}, ...plain } = look;
  const formulas = rows.flatMap(({ channel, cells }) =>
    cells.slice(0, 1).map(({ value: text }) => ({ channel, text })),
  );
  const nameNow = (name: string): string | undefined => {
    if (parameters.some((one) => one.name === name)) return name;
    return before.length === parameters.length
      ? parameters[before.findIndex((one) => one.name === name)]?.name
      : undefined;
  };
  const colours = Object.entries(tied).flatMap(([part, name]) => {
    const now = parameters.find((one) => one.name === nameNow(name));
    return now?.kind === 'colour' ? [[part, now.name] as const] : [];
  });
  return {
    ...plain,
    ...(parameters.length > 0 ? { parameters: [...parameters] } : {}),
    ...(formulas.length > 0 ? { formulas } : {}),
    ...(colours.length > 0 ? { colours: Object.fromEntries(colours) } : {}),
  };
}

/** What of a look's parameters does not hang together, in sentences. */
function lookProblems(look: KeptLook): string[] {
  const { parameters = [], colours = {} } = look;
  const known = new Map(parameters.map(({ name, kind }) => [name, kind]));
  return [
    ...structureProblems(lookPreset(look)),
    ...Object.entries(colours).flatMap(([part, name]) =>
      known.get(name) === 'colour'
        ? []
        : [`The colour of the ${part} is to be @${name}, which is not a colour parameter.`],
    ),
  ];
}

/** A look that is kept in the library, with its parameters. */
export const keptLookSchema = shape.superRefine((look, context) => {
  for (const message of lookProblems(look)) context.addIssue({ code: 'custom', message });
});

/** What belongs to a part of a look; see `STYLE_PART_FACTS` of the runs. */
interface PartOfLook {
  readonly look: readonly string[];
  readonly channels: readonly ChannelId[];
}

/** The look of a layer, of the parts that it has, as the library keeps it (without masks that are files); null for a layer that has none. */
export function lookOfLayer(
  { look, rest }: Pick<Layer, 'look' | 'rest'>,
  facts: Readonly<Record<StylePart, PartOfLook>>,
): KeptLook | null {
  const { matte: _matte, masks = [], ...plain } = look;
  const kept = masks.filter(isOfLibrary);
  const own = kept.length > 0 ? { ...plain, masks: kept } : plain;
  const has = (part: StylePart): boolean =>
    part !== 'matte' &&
    (facts[part].look.some((name) => name in own) ||
      (facts[part].look.length === 0 && facts[part].channels.some((channel) => rest[channel] !== undefined)));
  const parts = STYLE_PARTS.filter(has);
  if (parts.length === 0) return null;
  const names = new Set(parts.flatMap((part) => facts[part].look));
  const channels = new Set<string>(parts.flatMap((part) => facts[part].channels));
  const among = (known: ReadonlySet<string>) => (entry: readonly [string, unknown]) => known.has(entry[0]);
  return {
    parts,
    look: Object.fromEntries(Object.entries(own).filter(among(names))),
    rest: Object.fromEntries(Object.entries(rest).filter(among(channels))) as KeptLook['rest'],
  };
}
