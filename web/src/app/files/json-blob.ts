/** Elements of a list that are written at once: a few milliseconds of work. */
const SLICE = 200;
/** How deep long lists are looked for. */
const DEPTH = 4;
/** Milliseconds after which others get their turn. */
const TURN = 8;

/** True when somewhere in a value stands a list that is worth writing piece by piece. */
export function holdsLongList(value: unknown, depth = 0): boolean {
  if (typeof value !== 'object' || value === null || depth > DEPTH) return false;
  if (Array.isArray(value) && value.length > SLICE) return true;
  return Object.values(value).some((part) => holdsLongList(part, depth + 1));
}

function* listParts(list: readonly unknown[], depth: number): Generator<string> {
  yield '[';
  for (let i = 0; i < list.length; i += list.length > SLICE ? SLICE : 1) {
    if (i > 0) yield ',';
    if (list.length > SLICE) yield JSON.stringify(list.slice(i, i + SLICE)).slice(1, -1);
    else yield* jsonParts(list[i], depth + 1);
  }
  yield ']';
}

function* objectParts(object: object, depth: number): Generator<string> {
  yield '{';
  let isFirst = true;
  for (const [name, value] of Object.entries(object)) {
    if (value === undefined) continue;
    yield `${isFirst ? '' : ','}${JSON.stringify(name)}:`;
    yield* jsonParts(value, depth + 1);
    isFirst = false;
  }
  yield '}';
}

/** The JSON of plain data in pieces; put together they are what `JSON.stringify` gives. */
export function* jsonParts(value: unknown, depth = 0): Generator<string> {
  if (!holdsLongList(value, depth)) yield JSON.stringify(value) ?? 'null';
  else if (Array.isArray(value)) yield* listParts(value, depth);
  else yield* objectParts(value as object, depth);
}

/** The JSON of plain data as a request's body, written in turns so that the page goes on meanwhile. */
export async function jsonBlob(value: unknown): Promise<Blob> {
  const parts: Blob[] = [];
  let began = performance.now();
  for (const part of jsonParts(value)) {
    parts.push(new Blob([part]));
    if (performance.now() - began < TURN) continue;
    await new Promise((done) => setTimeout(done));
    began = performance.now();
  }
  return new Blob(parts, { type: 'application/json' });
}
