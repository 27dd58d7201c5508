import { channelOf } from '../../basics/channel';
import {
  NO_LAYER,
  isNumberKind,
  movementEase,
  movementFormulas,
  movementLabel,
  parameterNameSchema,
  type Movement,
  type Parameter,
  type ParameterKind,
  type Preset,
} from '../../formulas/preset';
import { baseName, mapFormulas, mentionsIn, rewriteMentions } from './formula-text';

/** What a new parameter of a kind begins with. */
const BEGINNINGS: Readonly<Record<ParameterKind, Pick<Parameter, 'label' | 'default'> & Partial<Parameter>>> = {
  time: { label: 'Time', default: '8f', min: '0f', from: '0f', to: '50f', step: '1f' },
  percent: { label: 'Share', default: '20%', from: '0%', to: '100%', step: '1%' },
  number: { label: 'Number', default: '1', from: '0', to: '10', step: '1' },
  length: { label: 'Distance', default: '60px', from: '0px', to: '300px', step: '1px' },
  angle: { label: 'Angle', default: '6deg', from: '-90deg', to: '90deg', step: '1deg' },
  frequency: { label: 'Pace', default: '2Hz', min: '0Hz', from: '0Hz', to: '10Hz', step: '0.1Hz' },
  colour: { label: 'Colour', default: '#f3c98b' },
  switch: { label: 'Switch', default: 'off' },
  choice: {
    label: 'Choice',
    default: 'first',
    options: [
      { name: 'first', label: 'First' },
      { name: 'second', label: 'Second' },
    ],
  },
  curve: { label: 'Curve', default: 'cubic-bezier(0.35, 0, 0.65, 1)' },
  seed: { label: 'Seed', default: '1', min: '0', from: '0', to: '100', step: '1' },
  layer: { label: 'Layer', default: NO_LAYER },
};

/** A word that can stand behind an @, made from any text: "Past full size" → "pastFullSize". */
export function nameFrom(label: string): string {
  const words = label
    .normalize('NFD')
    .replace(/[^A-Za-z0-9 ]+/g, ' ')
    .trim()
    .split(/\s+/)
    .filter((word) => word !== '');
  const camel = words.map((word, i) => {
    const low = word.toLowerCase();
    return i === 0 ? low : low.charAt(0).toUpperCase() + low.slice(1);
  });
  const name = camel.join('').slice(0, 36);
  return /^[a-z]/.test(name) ? name : `p${name}`;
}

function freeName(preset: Preset, wanted: string): string {
  const taken = new Set(preset.parameters.map(({ name }) => name));
  if (!taken.has(wanted)) return wanted;
  let number = 2;
  while (taken.has(`${wanted}${number}`)) number++;
  return `${wanted}${number}`;
}

/** Adds a parameter of a kind, under a name that is free. */
export function addParameter(preset: Preset, kind: ParameterKind, label?: string): Preset {
  const beginning = BEGINNINGS[kind];
  const shown = label ?? beginning.label;
  const name = freeName(preset, nameFrom(shown));
  const parameter: Parameter = { ...beginning, name, label: shown, kind, note: '' };
  return { ...preset, parameters: [...preset.parameters, parameter] };
}

/** Changes fields of a parameter other than its name and kind. */
export function changeParameter(preset: Preset, name: string, fields: Partial<Parameter>): Preset {
  const parameters = preset.parameters.map((parameter) => {
    if (parameter.name !== name) return parameter;
    const merged = { ...parameter, ...fields };
    return Object.fromEntries(Object.entries(merged).filter(([, value]) => value !== undefined)) as Parameter;
  });
  return { ...preset, parameters };
}

/** Gives a parameter another kind; default and limits begin anew, name, label, group and note stay. */
export function changeKind(preset: Preset, name: string, kind: ParameterKind): Preset {
  const parameters = preset.parameters.map((parameter): Parameter => {
    if (parameter.name !== name || parameter.kind === kind) return parameter;
    const { label, note, group } = parameter;
    return { ...BEGINNINGS[kind], name, label, kind, note, ...(group === undefined ? {} : { group }) };
  });
  const isLength = preset.lasts === name && kind !== 'time';
  const { lasts: _lasts, ...rest } = preset;
  return isLength ? { ...rest, parameters } : { ...preset, parameters };
}

/** Moves a parameter up (−1) or down (+1) in the list; at the end it stays. */
export function moveParameter(preset: Preset, name: string, by: number): Preset {
  return { ...preset, parameters: movedItem(preset.parameters, (entry) => entry.name === name, by) };
}

/** The movements of a preset put through `change`; nothing for one without. */
function movementsMapped({ movements }: Preset, change: (movement: Movement) => Movement): Pick<Preset, 'movements'> {
  return movements ? { movements: movements.map(change) } : {};
}

/** A list with one item moved by some places, within the list. */
export function movedItem<T>(list: readonly T[], isIt: (item: T) => boolean, by: number): T[] {
  const from = list.findIndex(isIt);
  const to = Math.max(0, Math.min(list.length - 1, from + by));
  if (from < 0) return [...list];
  const rest = list.toSpliced(from, 1);
  return rest.toSpliced(to, 0, list[from]);
}

/** What is wrong with a new name for a parameter, as a sentence; null where it can be used. */
export function nameProblem(preset: Preset, from: string, to: string): string | null {
  if (from === to) return null;
  const parsed = parameterNameSchema.safeParse(to);
  if (!parsed.success) return parsed.error.issues[0].message;
  const other = preset.parameters.find(({ name }) => name === to);
  return other ? `@${to} is the name of “${other.label}” already. Choose another one.` : null;
}

function renamed(name: string, from: string, to: string): string {
  return baseName(name) === from ? to + name.slice(from.length) : name;
}

/** Renames a parameter, and with it every mention in formulas, switches and easings. `to` must be free. */
export function renameParameter(preset: Preset, from: string, to: string): Preset {
  const inTexts = mapFormulas(preset, (text) =>
    rewriteMentions(text, ({ name }) => (baseName(name) === from ? `@${renamed(name, from, to)}` : null)),
  );
  return {
    ...inTexts,
    ...(preset.lasts === from ? { lasts: to } : {}),
    parameters: preset.parameters.map((entry) => (entry.name === from ? { ...entry, name: to } : entry)),
    ...movementsMapped(inTexts, (movement) => {
      const ease = movementEase(movement);
      const turned = ease?.type === 'parameter' && ease.name === from ? { ease: { ...ease, name: to } } : {};
      const when = movement.when === undefined ? {} : { when: renamed(movement.when, from, to) };
      return { ...movement, ...when, ...turned } as Movement;
    }),
    rows: inTexts.rows.map((row) => ({
      ...row,
      ...(row.when === undefined ? {} : { when: renamed(row.when, from, to) }),
      cells: row.cells.map(({ ease, ...cell }) => ({
        ...cell,
        ease: ease.type === 'parameter' && ease.name === from ? { ...ease, name: to } : ease,
      })),
    })),
  };
}

/** Renames an option of a choice, and every mention of it. */
export function renameOption(preset: Preset, parameter: string, from: string, to: string): Preset {
  const [before, after] = [`${parameter}.${from}`, `${parameter}.${to}`];
  const inTexts = mapFormulas(preset, (text) =>
    rewriteMentions(text, ({ name }) => (name === before ? `@${after}` : null)),
  );
  return {
    ...inTexts,
    parameters: preset.parameters.map((entry) =>
      entry.name === parameter
        ? {
            ...entry,
            default: entry.default === from ? to : entry.default,
            options: entry.options?.map((option) => (option.name === from ? { ...option, name: to } : option)),
          }
        : entry,
    ),
    ...movementsMapped(inTexts, (movement) => (movement.when === before ? { ...movement, when: after } : movement)),
    rows: inTexts.rows.map((row) => (row.when === before ? { ...row, when: after } : row)),
  };
}

/** Every place where a parameter is used, in words: "Scale x at Peak", "time of Peak", "row Opacity". */
export function parameterUses(preset: Preset, name: string): string[] {
  const mentions = (text: string): boolean => mentionsIn(text).some((mention) => baseName(mention.name) === name);
  const momentNames = new Map(preset.moments.map((moment) => [moment.id, moment.name]));
  const inMoments = preset.moments.filter(({ at }) => mentions(at)).map((moment) => `time of ${moment.name}`);
  const inRows = preset.rows.flatMap(({ channel, when, cells }) => {
    const { label } = channelOf(channel);
    return [
      ...(when !== undefined && baseName(when) === name ? [`whether ${label} counts`] : []),
      ...cells
        .filter(({ value }) => mentions(value))
        .map(({ moment }) => `${label} at ${momentNames.get(moment) ?? moment}`),
      ...cells
        .filter(({ ease }) => ease.type === 'parameter' && ease.name === name)
        .map(({ moment }) => `easing of ${label} after ${momentNames.get(moment) ?? moment}`),
    ];
  });
  const inMovements = (preset.movements ?? []).flatMap((movement) => {
    const label = movementLabel(movement);
    const ease = movementEase(movement);
    return [
      ...(movement.when !== undefined && baseName(movement.when) === name ? [`whether ${label} counts`] : []),
      ...movementFormulas(movement)
        .filter(({ text }) => mentions(text))
        .map(({ number }) => `${label}, ${number.label}`),
      ...(ease?.type === 'parameter' && ease.name === name ? [`easing of ${label}`] : []),
    ];
  });
  return [...inMoments, ...inRows, ...inMovements, ...(preset.lasts === name ? ['the length of the preset'] : [])];
}

/** Whether a parameter that is used can be taken out by writing its default where it is mentioned. */
export function canInline(preset: Preset, name: string): boolean {
  const parameter = preset.parameters.find((entry) => entry.name === name);
  return parameter !== undefined && isNumberKind(parameter.kind);
}

/**
 * Removes a parameter. Where formulas mention it, its default is written in its place (kinds that are numbers or
 * switches; others must not be used any more, see `parameterUses`). Rows that it switched then always count.
 */
export function removeParameter(preset: Preset, name: string): Preset {
  const parameter = preset.parameters.find((entry) => entry.name === name);
  if (!parameter) return preset;
  const isPlain = /^[\w.%]+$/.test(parameter.default);
  const literal = isPlain ? parameter.default : `(${parameter.default})`;
  const inlined = mapFormulas(preset, (text) =>
    rewriteMentions(text, (mention) => (baseName(mention.name) === name ? literal : null)),
  );
  const { lasts, ...rest } = inlined;
  return {
    ...rest,
    ...(lasts === undefined || lasts === name ? {} : { lasts }),
    parameters: preset.parameters.filter((entry) => entry.name !== name),
    ...movementsMapped(
      inlined,
      ({ when, ...movement }) =>
        (when === undefined || baseName(when) === name ? movement : { ...movement, when }) as Movement,
    ),
    rows: inlined.rows.map(({ when, ...row }) =>
      when === undefined || baseName(when) === name ? row : { ...row, when },
    ),
  };
}
