import {
  firstColour,
  formatFrames,
  formatShort,
  hasParameters,
  layersOfFinding,
  type Layer,
  type DryRun,
  type LayerValues,
  type Parameter,
  type ParameterKind,
  type Rate,
  type Scene,
  TICKS_PER_SECOND,
} from '@wexikine/core';

/** What the sheet shows of a dry run. */
export type SheetRun = Pick<DryRun, 'findings' | 'run'> & { readonly layers: readonly LayerValues[] };

/** One row of the run sheet: a layer, how deep it lies in groups, and what the run gives it. */
export interface SheetRow {
  readonly layer: Layer;
  readonly depth: number;
  /** A group whose layers can be opened below it; not where every layer has its own place in a flat list. */
  readonly canOpen: boolean;
  readonly isExpanded: boolean;
  readonly plan: LayerValues | null;
  readonly hasFinding: boolean;
}

/**
 * The rows of a scene from back to front; children of groups that are not expanded are left out. By place, the layers
 * that take part come first, in their order; or they alone are there, with what lies in those that are expanded.
 */
export function sheetRows(
  scene: Scene,
  plan: SheetRun | null,
  expanded: ReadonlySet<string>,
  query: string,
  isByPlace = false,
  isTakingOnly = false,
): SheetRow[] {
  const plans = new Map<string, LayerValues>();
  for (const entry of plan?.layers ?? []) plans.set(entry.layer, entry);
  const warned = new Set(plan?.findings.flatMap(layersOfFinding));
  const children = new Map<string | null, Layer[]>();
  for (const layer of scene.layers) {
    const siblings = children.get(layer.parent);
    if (siblings) siblings.push(layer);
    else children.set(layer.parent, [layer]);
  }
  const wanted = query.trim().toLowerCase();
  const matches = ({ name, tags }: Layer): boolean =>
    name.toLowerCase().includes(wanted) || tags.some((tag) => tag.toLowerCase().includes(wanted));
  const rowOf = (layer: Layer, depth: number, isFlat = false): SheetRow => ({
    layer,
    depth,
    canOpen: !isFlat && layer.kind === 'group',
    isExpanded: !isFlat && expanded.has(layer.id),
    plan: plans.get(layer.id) ?? null,
    hasFinding: warned.has(layer.id) && plans.has(layer.id),
  });
  const rows: SheetRow[] = [];
  /** Adds a layer with what lies in it; without layers that have a row of their own elsewhere. */
  const add = (layer: Layer, depth: number, isOwnElsewhere: boolean): void => {
    rows.push(rowOf(layer, depth));
    if (!expanded.has(layer.id)) return;
    for (const child of children.get(layer.id) ?? [])
      if (!isOwnElsewhere || !plans.has(child.id)) add(child, depth + 1, isOwnElsewhere);
  };
  if (wanted !== '') {
    const found = scene.layers.filter((layer) => matches(layer) && (!isTakingOnly || plans.has(layer.id)));
    return found.map((layer) => rowOf(layer, 0, true));
  }
  if ((isByPlace || isTakingOnly) && plan && plan.layers.length > 0) {
    const flat = scene.layers.map((layer, i) => ({ layer, place: plans.get(layer.id)?.place ?? Infinity, i }));
    flat.sort((a, b) => (a.place === b.place ? a.i - b.i : a.place - b.place));
    if (!isTakingOnly) return flat.map(({ layer }) => rowOf(layer, 0, true));
    for (const { layer, place } of flat) if (place !== Infinity) add(layer, 0, true);
    return rows;
  }
  for (const layer of children.get(null) ?? []) add(layer, 0, false);
  return rows;
}

/** Columns that are shown without being asked for; more would leave little room for the strips. */
const MOST_COLUMNS = 2;

/**
 * Columns of the sheet: parameters that were chosen to be shown, and of the others the first two that the run sets or
 * that were set by hand.
 */
export function sheetColumns(
  plan: SheetRun | null,
  parameters: readonly Parameter[],
  chosen: ReadonlyMap<string, boolean> = new Map(),
): Parameter[] {
  const recipe = plan?.run?.recipe;
  const own = recipe && hasParameters(recipe) ? recipe : null;
  const set = own?.parameters ?? {};
  const touched = new Set(Object.values(own?.overrides ?? {}).flatMap((hand) => Object.keys(hand.parameters ?? {})));
  const varied = parameters.filter(({ name }) => set[name] !== undefined || touched.has(name)).slice(0, MOST_COLUMNS);
  return plan === null ? [] : parameters.filter((entry) => chosen.get(entry.name) ?? varied.includes(entry));
}

/** A parameter's value of one layer for people. */
export function valueText(kind: ParameterKind, value: number | string, rate: Rate): string {
  if (typeof value === 'string') return value;
  const sign = (number: number, digits: number): string => String(Number(number.toFixed(digits)) + 0).replace('-', '−');
  switch (kind) {
    case 'time':
      return formatFrames(value * TICKS_PER_SECOND, rate);
    case 'percent':
      return `${sign(value * 100, 1)} %`;
    case 'length':
      return `${sign(value, 1)} px`;
    case 'angle':
      return `${sign(value, 1)}°`;
    case 'frequency':
      return `${sign(value, 2)} Hz`;
    case 'switch':
      return value === 0 ? 'off' : 'on';
    case 'number':
    case 'seed':
      return sign(value, 3);
    default:
      return String(value);
  }
}

/** Start and length as the sheet shows them: of the run where there is one, else of the layer. */
export function rowTimes({ layer, plan }: SheetRow, rate: Rate): { readonly starts: string; readonly lasts: string } {
  if (plan) return { starts: formatShort(plan.starts, rate), lasts: formatFrames(plan.lasts, rate) };
  return { starts: formatShort(layer.span.in, rate), lasts: formatFrames(layer.span.out - layer.span.in, rate) };
}

/** Place of the row of a layer, or of the nearest group around it that has one; −1 where none is. */
export function rowShowing(rows: readonly SheetRow[], layers: ReadonlyMap<string, Layer>, id: string): number {
  const places = new Map(rows.map(({ layer }, place) => [layer.id, place]));
  for (let at = layers.get(id); at; at = at.parent === null ? undefined : layers.get(at.parent)) {
    const place = places.get(at.id);
    if (place !== undefined) return place;
  }
  return -1;
}

/** Colour of the small square before a layer's name. */
export function swatch({ look, kind }: Layer): string {
  const fill =
    look.fill !== undefined && typeof look.fill === 'object' && 'to' in look.fill
      ? look.fill.to
      : firstColour(look.fill);
  if (fill !== undefined) return fill;
  return look.stroke ?? (kind === 'group' ? 'transparent' : 'var(--line-strong)');
}
