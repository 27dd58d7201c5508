import { channelOf, type ChannelId } from '../../basics/channel';
import { asBezier, type Easing, unlinked } from '../../basics/easing';
import type { Parameter, Phase, Preset, PresetEasing, Row } from '../../formulas/preset';
import { restValue, tracksOf, type Key, type Layer } from '../../scene/layer';
import type { Scene } from '../../scene/scene';
import { frameTicks, type Ticks } from '../../basics/time';

/** In what distances are written: pixels, shares of the layer's own size, or shares of the frame. */
export type Distances = 'px' | 'layer' | 'frame';

/** How a preset is made from the keys of a layer. */
export interface RecordOptions {
  readonly phase: Phase;
  readonly channels: readonly ChannelId[];
  /** Keys within these times are taken. */
  readonly from: Ticks;
  readonly to: Ticks;
  readonly distances: Distances;
  /** Values that become parameters: by their `RecordedValue.key`, the name that people see. */
  readonly parameters: Readonly<Record<string, string>>;
}

/** What of a scene recording needs. */
export type RecordStage = Pick<Scene, 'rate' | 'width' | 'height'>;

type ValueKind = 'length' | 'angle' | 'percent' | 'number';

/** One amount that the keys hold, and all the places where it stands; it can become a parameter. */
export interface RecordedValue {
  readonly key: string;
  readonly kind: ValueKind;
  /** As a literal: "60px", "120%". */
  readonly text: string;
  readonly places: readonly string[];
}

/** How a key's value is said relative to the rest pose: times a factor, plus an amount, or as it is. */
interface Relative {
  readonly way: 'times' | 'plus' | 'is';
  readonly amount: number;
  readonly kind: ValueKind;
  /** What the amount is multiplied with: "layer.width". */
  readonly of: string | null;
}

const DIGITS = 6;
const NOTHING = 1e-9;

function number(value: number): string {
  return String(Number(value.toFixed(DIGITS)));
}

function literal(amount: number, kind: ValueKind): string {
  switch (kind) {
    case 'length':
      return `${number(amount)}px`;
    case 'angle':
      return `${number(amount)}deg`;
    case 'percent':
      return `${number(amount * 100)}%`;
    case 'number':
      return number(amount);
  }
}

/** Channels whose shares are factors of the rest value; centres and colours move by an amount instead. */
function isFactor(channel: ChannelId): boolean {
  const { unit, family } = channelOf(channel);
  return unit === 'share' && !channel.startsWith('anchor') && channel !== 'crop.x' && channel !== 'crop.y'
    ? family !== 'colour' && channel !== 'stroke.start' && channel !== 'stroke.shift'
    : false;
}

function sizeNameFor(channel: ChannelId, distances: Distances): string | null {
  if (distances === 'px' || channelOf(channel).unit !== 'px') return null;
  if (channel !== 'position.x' && channel !== 'position.y') return null;
  return `${distances}.${channel === 'position.x' ? 'width' : 'height'}`;
}

function sizeOf(name: string, layer: Layer, stage: RecordStage): number {
  const size = (axis: 'x' | 'y'): number =>
    restValue(layer, `size.${axis}`) * Math.abs(restValue(layer, `scale.${axis}`));
  switch (name) {
    case 'layer.width':
      return size('x');
    case 'layer.height':
      return size('y');
    case 'frame.width':
      return stage.width;
    default:
      return stage.height;
  }
}

function relativeOf(channel: ChannelId, value: number, layer: Layer, stage: RecordStage, way: Distances): Relative {
  const rest = restValue(layer, channel);
  const { unit } = channelOf(channel);
  const kind: ValueKind = unit === 'px' ? 'length' : unit === 'deg' ? 'angle' : unit === 'share' ? 'percent' : 'number';
  if (isFactor(channel) && rest !== 0) return { way: 'times', amount: value / rest, kind, of: null };
  if (isFactor(channel)) return { way: 'is', amount: value, kind, of: null };
  const sizeName = sizeNameFor(channel, way);
  const size = sizeName === null ? 0 : sizeOf(sizeName, layer, stage);
  if (sizeName !== null && size > 0) {
    return { way: 'plus', amount: (value - rest) / size, kind: 'percent', of: sizeName };
  }
  return { way: 'plus', amount: value - rest, kind, of: null };
}

/** The amount that can become a parameter; null where the value simply is the rest value or nothing. */
function keyOf({ way, amount, kind, of }: Relative): string | null {
  const isRest = way === 'times' ? Math.abs(amount - 1) < NOTHING : Math.abs(amount) < NOTHING;
  if (isRest || Math.abs(amount) < NOTHING) return null;
  const size = way === 'plus' ? Math.abs(amount) : amount;
  return `${way}:${kind}:${of ?? ''}:${number(size * (kind === 'percent' ? 100 : 1))}`;
}

function formulaOf(relative: Relative, base: 'rest' | 'here', parameter: string | undefined): string {
  const { way, amount, kind, of } = relative;
  const times = of === null ? '' : ` × ${of}`;
  switch (way) {
    case 'is':
      return parameter === undefined ? literal(amount, kind) : `@${parameter}`;
    case 'times':
      if (Math.abs(amount) < NOTHING) return '0';
      if (Math.abs(amount - 1) < NOTHING) return base;
      return `${base} × ${parameter === undefined ? literal(amount, kind) : `@${parameter}`}`;
    case 'plus': {
      if (Math.abs(amount) < NOTHING) return base;
      const text = parameter === undefined ? literal(Math.abs(amount), kind) : `@${parameter}`;
      return `${base} ${amount < 0 ? '-' : '+'} ${text}${times}`;
    }
  }
}

interface Taken {
  readonly channel: ChannelId;
  readonly keys: readonly Key[];
}

function takenKeys(layer: Layer, { channels, from, to }: RecordOptions): Taken[] {
  return tracksOf(layer)
    .filter(([channel]) => channels.includes(channel))
    .map(([channel, keys]) => ({ channel, keys: keys.filter(({ at }) => at >= from && at <= to) }))
    .filter(({ keys }) => keys.length > 0);
}

/** The amounts that recording would write, each once with all its places. */
export function recordedValues(layer: Layer, stage: RecordStage, options: RecordOptions): RecordedValue[] {
  const found = new Map<string, { kind: ValueKind; text: string; places: string[] }>();
  const frame = frameTicks(stage.rate);
  for (const { channel, keys } of takenKeys(layer, options)) {
    for (const { at, value } of keys) {
      const relative = relativeOf(channel, value, layer, stage, options.distances);
      const key = keyOf(relative);
      if (key === null) continue;
      const amount = relative.way === 'plus' ? Math.abs(relative.amount) : relative.amount;
      const entry = found.get(key) ?? { kind: relative.kind, text: literal(amount, relative.kind), places: [] };
      entry.places.push(`${channelOf(channel).label} at ${number((at - options.from) / frame)} f`);
      found.set(key, entry);
    }
  }
  return [...found].map(([key, entry]) => ({ key, ...entry }));
}

/** What the keys of a layer look like: guesses to begin a recording with. Null where it has no keys to record. */
export function recordingOf(layer: Layer): Omit<RecordOptions, 'parameters'> | null {
  const tracks = tracksOf(layer);
  const isByHand = tracks.some(([, keys]) => keys.some(({ by }) => by === undefined));
  const own = tracks
    .map(([channel, keys]) => [channel, isByHand ? keys.filter(({ by }) => by === undefined) : keys] as const)
    .filter(([, keys]) => keys.length > 0);
  if (own.length === 0) return null;
  const times = own.flatMap(([, keys]) => keys.map(({ at }) => at));
  const [from, to] = [Math.min(...times), Math.max(...times)];
  const rests = (pick: (keys: readonly Key[]) => Key): boolean =>
    own.every(([channel, keys]) => Math.abs(pick(keys).value - restValue(layer, channel)) < 1e-6);
  const beginsAtRest = rests((keys) => keys[0]);
  const endsAtRest = rests((keys) => keys[keys.length - 1]);
  const isWhole = from <= layer.span.in && to >= layer.span.out - 1;
  const phase = isWhole ? 'throughout' : beginsAtRest && endsAtRest ? 'accent' : beginsAtRest ? 'exit' : 'entrance';
  return { phase, channels: own.map(([channel]) => channel), from, to, distances: 'px' };
}

/** Free handles between different values become a Bézier; others are said relative to rest as the value is. */
function easeOf(key: Key, next: Key | undefined, channel: ChannelId, layer: Layer): PresetEasing {
  // A preset names curves of the library by references of its own: what a key was linked to is its shape here.
  const ease = unlinked(key.ease);
  if (ease.type !== 'handles' || !next) return ease;
  const bezier = asBezier(ease, key.value, next.value);
  if (bezier) return bezier;
  const rest = restValue(layer, channel);
  const factor = channelOf(channel).unit === 'share' && rest !== 0 ? 1 / rest : 1;
  const scaled: Easing = {
    type: 'handles',
    leave: { ...ease.leave, value: ease.leave.value * factor },
    arrive: { ...ease.arrive, value: ease.arrive.value * factor },
  };
  return scaled;
}

/** A moment's time as a share of the preset's length: `@lasts × 8 ÷ 18`, or for a span `layer.length × 44.44%`. */
function timeText(after: Ticks, length: Ticks, frame: Ticks, phase: Phase): string {
  if (after === 0) return '0f';
  const whole = phase === 'throughout' ? 'layer.length' : '@lasts';
  if (after === length) return whole;
  const isFrames = after % frame === 0 && length % frame === 0;
  return isFrames && phase !== 'throughout'
    ? `${whole} × ${after / frame} ÷ ${length / frame}`
    : `${whole} × ${number((after / length) * 100)}%`;
}

function momentName(index: number, count: number, phase: Phase): string {
  if (index === 0) return phase === 'exit' ? 'Rest' : 'Start';
  if (index < count - 1) return `Key ${index + 1}`;
  return phase === 'exit' ? 'Gone' : phase === 'entrance' ? 'Rest' : 'End';
}

const HANG_OF = { entrance: 'in', exit: 'out', accent: 'time', throughout: 'span' } as const;

function lengthParameter(length: Ticks, frame: Ticks): Parameter {
  const isFrames = length % frame === 0;
  const text = isFrames ? `${length / frame}f` : `${number(length / frame)}f`;
  const to = `${Math.max(60, Math.ceil((length / frame) * 3))}f`;
  return {
    name: 'lasts',
    label: 'Lasts',
    kind: 'time',
    default: text,
    min: '1f',
    from: '2f',
    to,
    step: '1f',
    note: 'stretches every moment',
  };
}

const RANGES: Readonly<Record<ValueKind, Pick<Parameter, 'step'>>> = {
  length: { step: '1px' },
  angle: { step: '1deg' },
  percent: { step: '1%' },
  number: { step: '0.01' },
};

/** Soft limits around an amount: from nothing to three times as much, on whichever side of it. */
function parameterFor(name: string, label: string, { kind, text }: RecordedValue): Parameter {
  const amount = Number.parseFloat(text);
  const unit = text.replace(/^[-\d.]+/, '');
  const ends = [0, amount * 3].sort((a, b) => a - b).map((end) => `${number(end)}${unit}`);
  return { name, label, kind, default: text, from: ends[0], to: ends[1], ...RANGES[kind], note: '' };
}

/** Names for chosen values, each free and none of them `lasts`. */
function namesFor(options: RecordOptions, nameFrom: (label: string) => string): Map<string, string> {
  const names = new Map<string, string>();
  for (const [key, label] of Object.entries(options.parameters)) {
    const wanted = nameFrom(label);
    let name = wanted;
    for (let n = 2; name === 'lasts' || [...names.values()].includes(name); n++) name = `${wanted}${n}`;
    names.set(key, name);
  }
  return names;
}

/**
 * The keys of a layer as a preset, said relative to its rest pose, so that they fit layers of other sizes and places:
 * shares as factors, everything else as amounts. Moments lie at shares of the length, which is a parameter. Chosen
 * values become parameters too. `nameFrom` makes a parameter's name of a label.
 */
export function recordPreset(
  layer: Layer,
  stage: RecordStage,
  options: RecordOptions,
  nameFrom: (label: string) => string,
): Preset {
  const { phase } = options;
  const frame = frameTicks(stage.rate);
  const taken = takenKeys(layer, options);
  const times = [...new Set(taken.flatMap(({ keys }) => keys.map(({ at }) => at)))].sort((a, b) => a - b);
  const start = times[0] ?? 0;
  const length = (times[times.length - 1] ?? 0) - start;
  const names = namesFor(options, nameFrom);
  const base = phase === 'accent' ? 'here' : 'rest';
  const idOf = (at: Ticks): string => `m${times.indexOf(at) + 1}`;
  const rows = taken.map(({ channel, keys }): Row => ({
    channel,
    cells: keys.map((key, i) => {
      const relative = relativeOf(channel, key.value, layer, stage, options.distances);
      const name = names.get(keyOf(relative) ?? '');
      return {
        moment: idOf(key.at),
        value: formulaOf(relative, base, name),
        ease: easeOf(key, keys[i + 1], channel, layer),
      };
    }),
  }));
  const values = recordedValues(layer, stage, options).filter(({ key }) => names.has(key));
  const own = values.map((value) => parameterFor(names.get(value.key) ?? '', options.parameters[value.key], value));
  const isThrough = phase === 'throughout';
  const hasLength = !isThrough && length > 0;
  return {
    phase,
    hang: HANG_OF[phase],
    stretch: isThrough ? 'scale' : 'keep',
    ...(hasLength ? { lasts: 'lasts' } : {}),
    grid: times.every((at) => at % frame === 0) ? 'frames' : 'exact',
    parameters: hasLength ? [lengthParameter(length, frame), ...own] : own,
    moments: times.map((at, i) => ({
      id: idOf(at),
      name: momentName(i, times.length, phase),
      at: timeText(at - start, length, frame, phase),
    })),
    rows,
  };
}
