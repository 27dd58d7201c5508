import { Inflate, strFromU8, strToU8, zipSync } from 'fflate';
import { PACK_LIMITS } from './limits';
import type { PackProblem } from './problem';

/** Signatures and offsets of the zip format. Source: PKWARE APPNOTE 6.3. */
const LOCAL_HEADER = 0x04034b50;
const DIRECTORY_ENTRY = 0x02014b50;
const END_OF_DIRECTORY = 0x06054b50;
const END_SIZE = 22;
const ENTRY_SIZE = 46;
const LOCAL_SIZE = 30;
const MOST_COMMENT = 0xffff;
const ENCRYPTED = 1;
const STORED = 0;
const DEFLATED = 8;

interface Entry {
  readonly name: string;
  readonly flags: number;
  readonly method: number;
  readonly checksum: number;
  /** Bytes as they are packed, and unpacked. */
  readonly packed: number;
  readonly size: number;
  /** Where its local header stands. */
  readonly offset: number;
}

/** The files of a zip file by name, or why it cannot be read. */
export type UnzipResult<T = Uint8Array> =
  { readonly ok: true; readonly files: ReadonlyMap<string, T> } | { readonly ok: false; readonly problem: PackProblem };

/** What a zip file may be at most: bytes of it, of everything in it unpacked, and files. */
export interface ZipLimits {
  readonly file: number;
  readonly unpacked: number;
  readonly entries: number;
}

type Failed = Extract<UnzipResult, { ok: false }>;

function fail(problem: PackProblem): Failed {
  return { ok: false, problem };
}

/** The directory's entries; null where the file's end is missing or disagrees with it. */
function readDirectory(bytes: Uint8Array): Entry[] | null {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let end = bytes.length - END_SIZE;
  const first = Math.max(0, end - MOST_COMMENT);
  while (end >= first && view.getUint32(end, true) !== END_OF_DIRECTORY) end--;
  if (end < first || end < 0) return null;
  const count = view.getUint16(end + 10, true);
  const entries: Entry[] = [];
  let at = view.getUint32(end + 16, true);
  for (let i = 0; i < count; i++) {
    if (at + ENTRY_SIZE > end || view.getUint32(at, true) !== DIRECTORY_ENTRY) return null;
    const nameLength = view.getUint16(at + 28, true);
    const next = at + ENTRY_SIZE + nameLength + view.getUint16(at + 30, true) + view.getUint16(at + 32, true);
    if (next > end || view.getUint32(at + 42, true) >= at) return null;
    entries.push({
      name: strFromU8(bytes.subarray(at + ENTRY_SIZE, at + ENTRY_SIZE + nameLength)),
      flags: view.getUint16(at + 8, true),
      method: view.getUint16(at + 10, true),
      checksum: view.getUint32(at + 16, true),
      packed: view.getUint32(at + 20, true),
      size: view.getUint32(at + 24, true),
      offset: view.getUint32(at + 42, true),
    });
    at = next;
  }
  return entries;
}

/** Relative, with forward slashes, and never upwards. */
function isSafe(name: string): boolean {
  const hasSign = [...name].some((sign) => sign < ' ');
  return (
    name !== '' && !hasSign && !/^[/\\]|^[A-Za-z]:|\\/.test(name) && !name.split('/').some((part) => part === '..')
  );
}

function entryProblem(entries: readonly Entry[], limits: ZipLimits): PackProblem | null {
  if (entries.length > limits.entries) return { code: 'too-many-entries', count: entries.length };
  const size = entries.reduce((sum, entry) => sum + entry.size, 0);
  if (size > limits.unpacked) return { code: 'unpacked-too-large', bytes: size };
  const passed = new Set<string>();
  for (const { name, flags, method } of entries) {
    if (!isSafe(name)) return { code: 'unsafe-path', file: name };
    if (passed.has(name)) return { code: 'doubled-file', file: name };
    passed.add(name);
    if ((flags & ENCRYPTED) !== 0) return { code: 'encrypted', file: name };
    if (method !== STORED && method !== DEFLATED) return { code: 'unknown-packing', file: name };
  }
  return null;
}

/** CRC-32 as zip files use it (ISO 3309, polynomial 0xEDB88320). */
function checksumOf(bytes: Uint8Array): number {
  let sum = 0xffffffff;
  for (const byte of bytes) sum = CHECKSUMS[(sum ^ byte) & 0xff] ^ (sum >>> 8);
  return (sum ^ 0xffffffff) >>> 0;
}

const CHECKSUMS = Uint32Array.from({ length: 256 }, (_, start) => {
  let sum = start;
  for (let bit = 0; bit < 8; bit++) sum = sum & 1 ? (sum >>> 1) ^ 0xedb88320 : sum >>> 1;
  return sum;
});

/** Bytes of compressed data that are inflated at a time: enough to be quick, little enough to stop in time. */
const CHUNK = 64 * 1024;

/** Where an entry's data begins; null where its local header is not there. */
function dataStart(view: DataView, { offset }: Entry): number | null {
  if (offset + LOCAL_SIZE > view.byteLength || view.getUint32(offset, true) !== LOCAL_HEADER) return null;
  return offset + LOCAL_SIZE + view.getUint16(offset + 26, true) + view.getUint16(offset + 28, true);
}

/** Inflates a piece at a time, and stops as soon as there is more than was stated; null for what is not deflated data. */
function inflateTo(data: Uint8Array, size: number): Uint8Array | null {
  const result = new Uint8Array(size);
  let at = 0;
  let isEnded = false;
  const stream = new Inflate((piece, isLast) => {
    if (at + piece.length > size) throw new RangeError('more than was stated');
    result.set(piece, at);
    at += piece.length;
    isEnded = isLast;
  });
  try {
    for (let from = 0; from < data.length || from === 0; from += CHUNK) {
      stream.push(data.subarray(from, from + CHUNK), from + CHUNK >= data.length);
    }
  } catch {
    return null;
  }
  return isEnded && at === size ? result : null;
}

function contentsOf(bytes: Uint8Array, view: DataView, entry: Entry): Uint8Array | null {
  const start = dataStart(view, entry);
  if (start === null) return null;
  const data = bytes.subarray(start, start + entry.packed);
  const contents = entry.method === DEFLATED ? inflateTo(data, entry.size) : data;
  return contents?.length === entry.size && checksumOf(contents) === entry.checksum ? contents : null;
}

function inflateAll(bytes: Uint8Array, entries: readonly Entry[]): UnzipResult {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const files = new Map<string, Uint8Array>();
  for (const entry of entries) {
    if (entry.name.endsWith('/')) continue;
    const contents = contentsOf(bytes, view, entry);
    if (!contents) return fail({ code: 'damaged', file: entry.name });
    files.set(entry.name, contents);
  }
  return { ok: true, files };
}

/**
 * Unpacks a zip. Nothing is inflated before sizes, names and methods are found harmless, and every file must agree with
 * its checksum. Fails with one problem.
 */
export function unzip(bytes: Uint8Array, limits: ZipLimits): UnzipResult {
  if (bytes.length === 0) return fail({ code: 'empty' });
  if (bytes.length > limits.file) return fail({ code: 'file-too-large', bytes: bytes.length });
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const begins = bytes.length >= 4 && [LOCAL_HEADER, END_OF_DIRECTORY].includes(view.getUint32(0, true));
  if (!begins) return fail({ code: 'not-a-zip' });
  const entries = bytes.length < END_SIZE ? null : readDirectory(bytes);
  if (!entries) return fail({ code: 'cut-off' });
  const problem = entryProblem(entries, limits);
  return problem ? fail(problem) : inflateAll(bytes, entries);
}

/** Unpacks the text files of a pack. */
export function unzipTexts(bytes: Uint8Array): UnzipResult<string> {
  const result = unzip(bytes, PACK_LIMITS);
  if (!result.ok) return result;
  return { ok: true, files: new Map([...result.files].map(([name, contents]) => [name, strFromU8(contents)])) };
}

/** The earliest time that a zip file can hold; equal contents then give equal files. */
const NO_TIME = new Date(1980, 0, 1);

/** Packs texts by their paths. The same texts always give the same bytes. */
export function zipTexts(files: ReadonlyMap<string, string>): Uint8Array {
  const entries = [...files].map(([name, text]) => [name, strToU8(text)] as const);
  return zipSync(Object.fromEntries(entries), { mtime: NO_TIME, level: 6 });
}
