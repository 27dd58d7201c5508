import {
  frameTicks,
  hasParameters,
  isPresetRecipe,
  type Override,
  type Parameter,
  type Rate,
  type Recipe,
  type Shelf,
} from '@wexikine/core';
import { parameterCheck, timeCheck } from '../../fields/checks';
import { rowTimes, valueText, type SheetRow } from './rows';

/** What of a layer a cell of the sheet sets. */
export type CellField = 'start' | 'length' | `parameter:${string}`;

/** One cell of a row that the run gives a value to. */
export interface Cell {
  readonly field: CellField;
  readonly label: string;
  readonly text: string;
  /** One of the columns that differ from layer to layer. */
  readonly isVaried: boolean;
  readonly canEdit: boolean;
  readonly isByHand: boolean;
}

/** Start, length and the varied parameters of a row. */
export function cellsOf(row: SheetRow, columns: readonly Parameter[], recipe: Recipe | null, rate: Rate): Cell[] {
  const times = rowTimes(row, rate);
  const preset = recipe && isPresetRecipe(recipe) ? recipe : null;
  const byHand = recipe && hasParameters(recipe) ? recipe : null;
  const own = preset?.overrides?.[row.layer.id];
  const canEdit = preset !== null && row.plan !== null;
  const canVary = byHand !== null && row.plan !== null;
  const { plan } = row;
  return [
    {
      field: 'start',
      label: 'Start',
      text: times.starts,
      isVaried: false,
      canEdit,
      isByHand: own?.start !== undefined,
    },
    {
      field: 'length',
      label: 'Length',
      text: times.lasts,
      isVaried: false,
      canEdit,
      isByHand: own?.length !== undefined,
    },
    ...columns.map(({ name, label, kind }): Cell => ({
      field: `parameter:${name}`,
      label,
      text: plan ? valueText(kind, plan.values[name], rate) : '',
      isVaried: true,
      canEdit: canVary,
      isByHand: byHand?.overrides?.[row.layer.id]?.parameters?.[name] !== undefined,
    })),
  ];
}

/** What refuses a text in a cell. */
export function cellChecks(
  field: CellField,
  parameters: readonly Parameter[],
  shelf: Shelf,
  rate: Rate,
): (text: string) => string | null {
  if (field === 'start') return timeCheck(rate);
  if (field === 'length') return timeCheck(rate, frameTicks(rate));
  const parameter = parameters.find(({ name }) => field === `parameter:${name}`);
  return parameter ? parameterCheck(parameter, shelf) : () => null;
}

/** A recipe with a value set by hand for one layer, or released. */
export function withOverride(recipe: Recipe, layer: string, field: CellField, text: string | null): Recipe {
  if (!hasParameters(recipe)) return recipe;
  const { [layer]: own = {}, ...others }: Readonly<Record<string, Override>> = recipe.overrides ?? {};
  const { start, length, parameters = {} } = own;
  const next = { start, length, parameters: { ...parameters } };
  if (field === 'start' || field === 'length') next[field] = text ?? undefined;
  else if (text === null) delete next.parameters[field.slice('parameter:'.length)];
  else next.parameters[field.slice('parameter:'.length)] = text;
  const kept = {
    ...(next.start === undefined ? {} : { start: next.start }),
    ...(next.length === undefined ? {} : { length: next.length }),
    ...(Object.keys(next.parameters).length === 0 ? {} : { parameters: next.parameters }),
  };
  const overrides = Object.keys(kept).length === 0 ? others : { ...others, [layer]: kept };
  const { overrides: _standing, ...rest } = recipe;
  return Object.keys(overrides).length === 0 ? rest : ({ ...rest, overrides } as Recipe);
}
