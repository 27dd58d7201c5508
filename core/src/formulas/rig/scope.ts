import { CHANNEL_IDS, channelOf, type ChannelId } from '../../basics/channel';
import {
  CLOCK_NAME,
  createScope,
  DIMENSIONS,
  numberOf,
  ROW_NAME,
  RUN_NAMES,
  type CurveProgress,
  type PastReader,
  type Scope,
  type ValueType,
} from '../formula';
import { inputsOfParameter, typeOfChannel, whyUnfit, withColours } from '../preset';
import { KNOWN_ROLES, type Rig } from './rig';

const { TIME } = DIMENSIONS;

/** Names that only rigs know; `rest`, `keyed` and `arrival` have the unit of the channel that is driven. */
const LIVE_NAMES: Readonly<Record<string, ValueType>> = {
  t: numberOf(TIME, true),
  [CLOCK_NAME]: numberOf(TIME, true),
  since: numberOf(TIME, true),
  until: numberOf(TIME, true),
};

/** The speed of a channel: its unit by seconds. */
function speedOf(channel: ChannelId): ValueType {
  const type = typeOfChannel(channel);
  if (type.kind !== 'number') return type;
  const [length, time, angle] = type.dimension;
  return numberOf([length, time - 1, angle]);
}

/** A channel of a role as formulas name it. */
export interface RigSource {
  readonly name: string;
  /** The role; null for `keyed`, what the keys of the driven channel give. */
  readonly role: string | null;
  readonly channel: ChannelId;
}

const AXIS = /\.([xy])$/;

/**
 * Channels of roles that a formula for a channel may read: `leader.rotation`, and where it drives an axis also
 * `leader.position`, which is the axis at hand.
 */
function sourcesFor({ roles }: Pick<Rig, 'roles'>, channel: ChannelId): RigSource[] {
  const axis = AXIS.exec(channel)?.[1];
  const names = [...KNOWN_ROLES, ...roles.map(({ name }) => name)];
  const ofRole = (role: string): RigSource[] =>
    CHANNEL_IDS.flatMap((id) => {
      const own = { name: `${role}.${id}`, role, channel: id };
      if (axis === undefined || AXIS.exec(id)?.[1] !== axis) return [own];
      return [own, { name: `${role}.${id.replace(AXIS, '')}`, role, channel: id }];
    });
  return [{ name: 'keyed', role: null, channel }, ...names.flatMap(ofRole)];
}

/** Roles whose rest value on the driven channel can be read, as `leader.rest`. */
function restRoles({ roles }: Pick<Rig, 'roles'>): string[] {
  return ['before', ...roles.map(({ name }) => name)];
}

/** The scope of a formula, and what its sources are. */
export interface RigScope {
  readonly scope: Scope;
  readonly sources: readonly RigSource[];
  /** Who reads sources at other times; set before the formula runs. */
  readonly reader: { current: PastReader | null };
}

const WORDS = /[A-Za-z_][\w.]*/g;

/** All that a rig's formula for a channel may read. Only what the text names has a place among the inputs. */
export function rigScope(
  rig: Pick<Rig, 'dials' | 'roles'>,
  channel: ChannelId,
  text: string,
  curves: readonly CurveProgress[] = [],
): RigScope {
  const sources = sourcesFor(rig, channel);
  const own = typeOfChannel(channel);
  const names: Record<string, ValueType> = {
    ...RUN_NAMES,
    ...LIVE_NAMES,
    rest: own,
    arrival: speedOf(channel),
    ...Object.fromEntries(restRoles(rig).map((role) => [`${role}.rest`, own])),
    ...Object.fromEntries(sources.map((source) => [source.name, typeOfChannel(source.channel)])),
  };
  const dials = Object.fromEntries(rig.dials.flatMap(inputsOfParameter));
  const words = new Set(text.match(WORDS) ?? []);
  const used = Object.fromEntries(Object.entries(names).filter(([name]) => words.has(name) || name === CLOCK_NAME));
  const places = createScope({ [ROW_NAME]: numberOf(DIMENSIONS.PLAIN), ...used }, dials);
  const unfit = rig.dials.flatMap((dial) => {
    const why = whyUnfit(dial);
    return why === null ? [] : [[dial.name, why] as const];
  });
  const reader: RigScope['reader'] = { current: null };
  const past = { sources: new Map(sources.map(({ name }, i) => [name, i])), reader };
  const scope = { ...places, names: new Map(Object.entries(names)), unfit: new Map(unfit), past, curves };
  const colours = rig.dials.filter(({ kind }) => kind === 'colour').map(({ name }) => name);
  return {
    scope: withColours(scope, colours, channel),
    sources,
    reader,
  };
}

/** The unit that a driven channel's formula must give, in words: "px", "%", "degrees". */
export function unitWords(channel: ChannelId): string {
  return { px: 'px', deg: 'degrees', share: '%', number: 'a number' }[channelOf(channel).unit];
}
