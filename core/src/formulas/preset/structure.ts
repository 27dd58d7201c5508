import { channelOf } from '../../basics/channel';
import { givenChannel, movementChannels, movementLabel, MOVEMENTS, type Movement } from './movement';
import type { Preset } from './preset';

function doubled(values: readonly string[]): string[] {
  return values.filter((value, i) => values.indexOf(value) < i);
}

/** What a row can be switched by: switches, and options of choices as `side.left`. */
export function conditionsOf(parameters: Preset['parameters']): string[] {
  return parameters.flatMap(({ name, kind, options }) => {
    if (kind === 'choice') return (options ?? []).map((option) => `${name}.${option.name}`);
    return kind === 'switch' ? [name] : [];
  });
}

function parameterProblems({ parameters, lasts }: Preset): string[] {
  const timeNames = parameters.filter(({ kind }) => kind === 'time').map(({ name }) => name);
  const choices = parameters.filter(({ kind }) => kind === 'choice');
  return [
    ...doubled(parameters.map(({ name }) => name)).map((name) => `The parameter @${name} is there twice.`),
    ...choices
      .filter(({ options }) => options === undefined)
      .map(({ name }) => `@${name} is a choice without options.`),
    ...choices.flatMap(({ name, options }) =>
      doubled((options ?? []).map((option) => option.name)).map((id) => `@${name} has the option “${id}” twice.`),
    ),
    ...(lasts === undefined || timeNames.includes(lasts)
      ? []
      : [`The length is said to be @${lasts}, which is not a time parameter.`]),
  ];
}

function rowProblems({ parameters, moments, rows }: Preset): string[] {
  const ids = new Set(moments.map(({ id }) => id));
  const curves = new Set(parameters.filter(({ kind }) => kind === 'curve').map(({ name }) => name));
  const conditions = new Set(conditionsOf(parameters));
  return rows.flatMap(({ channel, cells, when }) => [
    ...doubled(cells.map(({ moment }) => moment)).map((id) => `Row ${channel} has two cells at moment “${id}”.`),
    ...cells
      .filter(({ moment }) => !ids.has(moment))
      .map(({ moment }) => `A cell belongs to the moment “${moment}”, which is not there.`),
    ...cells.flatMap(({ ease }) =>
      ease.type === 'parameter' && !curves.has(ease.name)
        ? [`Row ${channel} is eased by @${ease.name}, which is not a curve parameter.`]
        : [],
    ),
    ...(when === undefined || conditions.has(when)
      ? []
      : [`Row ${channel} depends on @${when}, which is not a switch and no option of a choice.`]),
  ]);
}

function movementProblem(movement: Movement, { parameters, moments }: Preset): string[] {
  const label = movementLabel(movement);
  const ids = new Set(moments.map(({ id }) => id));
  const [channel, { units }] = [givenChannel(movement), MOVEMENTS[movement.type]];
  const ease = 'ease' in movement ? movement.ease : null;
  const isCurve = (name: string): boolean => parameters.some((entry) => entry.name === name && entry.kind === 'curve');
  const { when } = movement;
  return [
    ...[movement.from, ...('to' in movement ? [movement.to] : [])]
      .filter((id) => !ids.has(id))
      .map((id) => `${label} belongs to the moment “${id}”, which is not there.`),
    ...(channel !== null && units !== null && !units.includes(channelOf(channel).unit)
      ? [`${label}: ${channelOf(channel).label} cannot do that. Choose a channel in px.`]
      : []),
    ...(ease?.type === 'parameter' && !isCurve(ease.name)
      ? [`${label} is eased by @${ease.name}, which is not a curve parameter.`]
      : []),
    ...(when === undefined || conditionsOf(parameters).includes(when)
      ? []
      : [`${label} depends on @${when}, which is not a switch and no option of a choice.`]),
  ];
}

function movementProblems(preset: Preset): string[] {
  const { rows, movements = [] } = preset;
  const inRows = rows.map(({ channel }) => channel);
  // Movements that hang on conditions may share a channel: only one of them may count at a time.
  const always = movements.filter(({ when }) => when === undefined).flatMap(movementChannels);
  const moved = [...new Set(movements.flatMap(movementChannels))];
  return [
    ...doubled(movements.map(({ id }) => id)).map((id) => `The movement “${id}” is there twice.`),
    ...movements.flatMap((movement) => movementProblem(movement, preset)),
    ...moved
      .filter((channel) => inRows.includes(channel))
      .map((channel) => `The channel ${channel} has a row and a movement. Remove one of them.`),
    ...doubled(always).map((channel) => `Two movements give keys to ${channel}. Remove one of them.`),
  ];
}

/** References between the parts of a preset that lead nowhere, and names given twice. */
export function structureProblems(preset: Preset): string[] {
  return [
    ...doubled(preset.moments.map(({ id }) => id)).map((id) => `The moment “${id}” is there twice.`),
    ...parameterProblems(preset),
    ...doubled(preset.rows.map(({ channel }) => channel)).map((id) => `The channel ${id} has two rows.`),
    ...rowProblems(preset),
    ...movementProblems(preset),
  ];
}

/** What a draft lacks before it can be published. */
export function unfinishedParts({ rows, movements = [] }: Preset): string[] {
  if (rows.length + movements.length === 0) return ['The preset moves no channel yet. Add one.'];
  return rows
    .filter(({ cells }) => cells.length === 0)
    .map(({ channel }) => `Row ${channel} has no cells. Fill one or remove the row.`);
}
