/** Data of ours is nested a dozen deep; what is nested deeper than this was made to hurt. */
export const MOST_DEPTH = 64;

/** True for text without NUL and without halves of surrogate pairs, which the database cannot hold. */
export function isHeldText(text: string): boolean {
  return !text.includes('\0') && !HALF_PAIR.test(text);
}

/** Half of a surrogate pair: with the flag `u` whole pairs are one character and do not match. */
const HALF_PAIR = /\p{Surrogate}/u;

/** Where a text stands that cannot be held: the path of names and places to it; null where all can be. */
export function findUnheldText(value: unknown): string | null {
  const waiting: { readonly value: unknown; readonly path: string }[] = [{ value, path: '' }];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { value: found, path } = next;
    if (typeof found === 'string' && !isHeldText(found)) return path === '' ? 'text' : path;
    if (typeof found !== 'object' || found === null) continue;
    for (const [name, child] of Object.entries(found)) {
      if (!isHeldText(name)) return path === '' ? 'a name' : `${path}, a name`;
      if (typeof child === 'string' || typeof child === 'object') {
        waiting.push({ value: child, path: path === '' ? name : `${path}.${name}` });
      }
    }
  }
  return null;
}

/** The largest scenes that can be sent have a tenth as many values as this; more take more memory than they are worth. */
const MOST_COMMAS = 12_000_000;

/** How deep brackets of JSON text stand in one another, and how many commas there are. Strings are passed over. */
function shapeOf(text: string): { readonly deepest: number; readonly commas: number } {
  let [depth, deepest, commas, isInString] = [0, 0, 0, false];
  for (let i = 0; i < text.length && deepest <= MOST_DEPTH && commas <= MOST_COMMAS; i++) {
    const sign = text.charCodeAt(i);
    if (isInString) {
      if (sign === BACKSLASH) i++;
      else if (sign === QUOTE) isInString = false;
    } else if (sign === QUOTE) isInString = true;
    else if (sign === OPEN_LIST || sign === OPEN_OBJECT) deepest = Math.max(deepest, ++depth);
    else if (sign === CLOSE_LIST || sign === CLOSE_OBJECT) depth--;
    else if (sign === COMMA) commas++;
  }
  return { deepest, commas };
}

const [QUOTE, COMMA, BACKSLASH, OPEN_LIST, CLOSE_LIST, OPEN_OBJECT, CLOSE_OBJECT] = [34, 44, 92, 91, 93, 123, 125];

/** What a text of JSON holds, or why it cannot be read, as a sentence. */
export type JsonResult =
  { readonly ok: true; readonly data: unknown } | { readonly ok: false; readonly message: string };

/**
 * Reads JSON from outside. Fails with a sentence on text that is not JSON, is nested deeper than `MOST_DEPTH`, or holds
 * what the database cannot.
 */
export function readJson(text: string): JsonResult {
  const { deepest, commas } = shapeOf(text);
  if (commas > MOST_COMMAS) {
    return { ok: false, message: 'The data has more than 12 million values. Split it into smaller parts.' };
  }
  if (deepest > MOST_DEPTH) {
    return { ok: false, message: `The data is nested more than ${MOST_DEPTH} deep. Flatten it.` };
  }
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch (error) {
    return {
      ok: false,
      message: `This is not valid JSON (${(error as Error).message.slice(0, 120)}). Check the file.`,
    };
  }
  // Without an escape such as \u0000 no such text can be there: JSON allows no NUL, and UTF-8 no half pairs.
  const where = text.includes('\\u') || HALF_PAIR.test(text) ? findUnheldText(data) : null;
  if (where === null) return { ok: true, data };
  const message = `${where}: This text holds a NUL or half of a character, which cannot be stored. Take it out.`;
  return { ok: false, message };
}
