import * as z from 'zod';
import { channelIdSchema, type ChannelId } from '../../basics/channel';
import { filesOfMask, lookSchema, type Layer, type Mask } from '../../scene/layer';
import { STYLE_PARTS, type StylePart } from '../../scene/recipe';

/** A library goes where files of scenes do not. */
function isOfLibrary(mask: Mask): boolean {
  return filesOfMask(mask).length === 0;
}

/**
 * A look that is kept in the library: the parts of a look that it sets, what they are, and the numbers that belong to them. A
 * part that it names and does not have is taken away where it is put on.
 */
export const keptLookSchema = z.strictObject({
  parts: z.array(z.enum(STYLE_PARTS)).min(1, 'A look has at least one part.').max(STYLE_PARTS.length),
  /** A matte is another layer of a scene, which a library does not have. */
  look: lookSchema.omit({ matte: true }).refine(({ masks = [] }) => masks.every(isOfLibrary), {
    error:
      'A look of the library has no masks by pictures or by words in a font of one’s own: those are files of scenes.',
  }),
  rest: z.partialRecord(channelIdSchema, z.number().min(-1e9).max(1e9)),
});

/** A look that is kept in the library. */
export type KeptLook = Readonly<z.infer<typeof keptLookSchema>>;

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
