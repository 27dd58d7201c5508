import type { Choice } from './choices';

/** How a field of a way is shown and read. */
export type WayFieldKind =
  | 'time'
  | 'signed-time'
  | 'pixels'
  | 'count'
  | 'number'
  | 'degrees'
  | 'percent'
  | 'choice'
  | 'switch'
  | 'seed'
  | 'column'
  | 'cue'
  | 'curve'
  | 'moment'
  | 'path'
  | 'edge';

/** One field of a way: where it stands in the recipe, and how it is shown. */
export interface WayField {
  readonly key: string;
  readonly label: string;
  readonly kind: WayFieldKind;
  readonly options?: readonly (readonly [string, string])[];
  /** Least value, in the field's own unit; times in frames. */
  readonly least?: number;
  /** Greatest value of a plain number. */
  readonly most?: number;
  /** May be left out of the recipe. */
  readonly optional?: true;
  /** What it means that the field is empty. */
  readonly empty?: string;
}

/** What a way is made of in a recipe: `by`, and its fields. */
export type WayValue = Readonly<Record<string, unknown>> & { readonly by: string };

/** A way to say something in a recipe: its name, its fields, and what it begins with. */
export interface Way extends Choice {
  readonly fields: readonly WayField[];
  readonly begin: Readonly<Record<string, unknown>>;
}

/** A way with its words and its fields. */
export function way(
  value: string,
  label: string,
  note: string,
  begin: Readonly<Record<string, unknown>> = {},
  fields: readonly WayField[] = [],
): Way {
  return { value, label, note, begin, fields };
}

/** A field of a way. */
export function field(
  key: string,
  label: string,
  kind: WayFieldKind,
  more: Partial<Omit<WayField, 'key' | 'label' | 'kind'>> = {},
): WayField {
  return { key, label, kind, ...more };
}
