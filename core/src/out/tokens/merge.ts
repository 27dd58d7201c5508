import { canonicalJson } from '../export';
import type { HouseValue, ItemRecord, Palette } from '../../library/library';
import { ITEM_FORMAT } from '../../library/library';
import type { SkippedToken, TokenPalette, TokenValue } from './read';
import { GROUP_MARK } from './write';

/** What one token would do to the library. */
export interface TokenChange {
  readonly id: string;
  readonly path: string;
  readonly status: 'new' | 'same' | 'changed';
  readonly before: HouseValue | Palette | null;
  readonly after: HouseValue | Palette;
}

/** What reading a design tokens file does to the library. */
export interface TokenPlan {
  readonly changes: readonly TokenChange[];
  /** Tokens whose house value here has another type, which cannot change. */
  readonly refused: readonly SkippedToken[];
  readonly writes: readonly ItemRecord[];
}

/** Who reads it and when; passed in, so that planning stays pure. */
export interface TokenContext {
  readonly by: string;
  /** ISO 8601 date and time. */
  readonly when: string;
  /** Name of the file, for the summaries of the new revisions. */
  readonly file: string;
}

function slug(parts: readonly string[]): string {
  const text = parts
    .join('-')
    .normalize('NFD')
    .replace(/[^A-Za-z0-9]+/g, '-');
  return text.replace(/^-|-$/g, '').slice(0, 60) || 'token';
}

function pathOf({ groups, name }: Pick<TokenValue, 'groups' | 'name'>): string {
  return [...groups, name].join('.');
}

function placeOf(collection: string | null, name: string | undefined): string {
  return JSON.stringify([collection, name]);
}

type Placed = Pick<TokenValue, 'groups' | 'name'>;

/** The item of a token: one of its kind and name in that collection, whatever its id. */
function createStandingFor(
  here: readonly ItemRecord[],
  kind: 'house' | 'palette',
): (token: Placed) => ItemRecord | undefined {
  const byPlace = new Map<string, ItemRecord>();
  for (const record of here) {
    const place = placeOf(record.collection, record.revisions.at(-1)?.name);
    if (record.kind === kind && !byPlace.has(place)) byPlace.set(place, record);
  }
  return ({ groups, name }) => byPlace.get(placeOf(groups.length === 0 ? null : groups.join(GROUP_MARK), name));
}

/** Gives ids that are not taken yet: the wanted one, or with the next number after it. */
function createFreeIds(taken: Set<string>): (wanted: string) => string {
  const last = new Map<string, number>();
  return (wanted) => {
    let id = wanted;
    let n = last.get(wanted) ?? 1;
    while (taken.has(id)) id = `${wanted}-${++n}`;
    last.set(wanted, n);
    taken.add(id);
    return id;
  };
}

interface Entry {
  readonly token: Pick<TokenValue, 'groups' | 'name' | 'note' | 'deprecated'>;
  readonly kind: 'house' | 'palette';
  readonly id: string;
  readonly record: ItemRecord | undefined;
  readonly after: HouseValue | Palette;
}

/** What one token or palette does: nothing, a new item, or a new revision of the one that is there. */
function changeOf(
  { token, kind, id, record, after }: Entry,
  { by, when, file }: TokenContext,
): { readonly change: TokenChange; readonly write: ItemRecord | null } {
  const newest = record?.revisions.at(-1);
  const before = (newest?.body as HouseValue | Palette | undefined) ?? null;
  const isSame =
    newest !== undefined &&
    canonicalJson(before) === canonicalJson(after) &&
    newest.note === token.note &&
    record?.retired === token.deprecated;
  const status = isSame ? 'same' : record ? 'changed' : 'new';
  const change: TokenChange = { id, path: pathOf(token), status, before, after };
  if (isSame) return { change, write: null };
  const revision = (record?.revisions.length ?? 0) + 1;
  const made = {
    revision,
    name: token.name,
    note: token.note,
    author: by,
    when,
    summary: `From ${file}.`,
    body: after,
  };
  const write = {
    format: ITEM_FORMAT,
    id,
    kind,
    tags: record?.tags ?? [],
    collection: token.groups.length === 0 ? null : token.groups.join(GROUP_MARK),
    retired: token.deprecated,
    revisions: [...(record?.revisions ?? []), made],
    draft: record?.draft ?? null,
  } as ItemRecord;
  return { change, write };
}

/** Plans what reading a tokens file does to house values and palettes: new ones, and new revisions of those that changed. */
export function planTokens(
  all: readonly TokenValue[],
  here: readonly ItemRecord[],
  context: TokenContext,
  palettes: readonly TokenPalette[] = [],
): TokenPlan {
  const standingFor = createStandingFor(here, 'house');
  const paletteFor = createStandingFor(here, 'palette');
  const typeHere = (token: TokenValue): string | undefined =>
    (standingFor(token)?.revisions.at(-1)?.body as HouseValue | undefined)?.type;
  const isRefused = (token: TokenValue): boolean => (typeHere(token) ?? token.value.type) !== token.value.type;
  const tokens = all.filter((token) => !isRefused(token));
  const refused = all.filter(isRefused).map((token) => ({
    path: pathOf(token),
    why: `it is a ${token.value.type} there and a ${typeHere(token) ?? ''} here; give one of them another name`,
  }));
  const freeId = createFreeIds(new Set(here.map(({ id }) => id)));
  const standing = tokens.map((token) => standingFor(token));
  const ids = tokens.map((token, i) => standing[i]?.id ?? freeId(slug([...token.groups, token.name])));
  const idByPath = new Map(tokens.map((token, i) => [pathOf(token), ids[i]]));
  const values = tokens.map((token, i): Entry => {
    const as = token.aliasOf === null ? undefined : idByPath.get(token.aliasOf);
    const after = (as === undefined ? token.value : { ...token.value, as }) as HouseValue;
    return { token, kind: 'house', id: ids[i], record: standing[i], after };
  });
  const groups = palettes.map((token): Entry => {
    const record = paletteFor(token);
    const id = record?.id ?? freeId(slug(['palette', ...token.groups, token.name]));
    return { token, kind: 'palette', id, record, after: token.value };
  });
  const done = [...values, ...groups].map((entry) => changeOf(entry, context));
  const changes = done.map(({ change }) => change);
  const writes = done.flatMap(({ write }) => (write ? [write] : []));
  return { changes, refused, writes };
}
