import { createHash, randomUUID } from 'node:crypto';
import { linkSync, mkdirSync, readFileSync, renameSync, statSync, unlinkSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** Another process holds the folder. */
export class FolderInUse extends Error {
  constructor(
    readonly folder: string,
    readonly pid: number | null,
  ) {
    super(
      `The data folder ${folder} is in use by another Wexikine server${pid === null ? '' : ` (process ${pid})`}. ` +
        'Stop that one first, or choose another folder with WEXIKINE_DATA.',
    );
  }
}

/** Who holds a file: a process, and a mark of its own for each time that one is taken. */
interface Holder {
  readonly pid: number;
  /** When that process began, so that a later process with the same number is not taken for it. */
  readonly began: string | null;
  readonly mark: string;
}

const LOCK_NAME = 'wexikine.lock';
/** Field 22 of /proc/PID/stat, counted after the command's closing bracket. */
const START_TIME_FIELD = 19;
/** A file that cannot be read is somebody's who is just writing it, as earlier versions did, unless it is older. */
const WRITING_MS = 5_000;
const ROUNDS = 50;

function codeOf(error: unknown): string | undefined {
  return (error as NodeJS.ErrnoException).code;
}

function beginningOf(pid: number): string | null {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
    return stat.slice(stat.lastIndexOf(')') + 2).split(' ')[START_TIME_FIELD] ?? null;
  } catch {
    return null;
  }
}

function isAlive({ pid, began }: Holder): boolean {
  try {
    process.kill(pid, 0);
  } catch (error) {
    if (codeOf(error) !== 'EPERM') return false;
  }
  const now = beginningOf(pid);
  return began === null || now === null || began === now;
}

/** A file of the lock as it stands: nobody's, somebody's who lives, or left behind by somebody known by a mark. */
type Standing =
  | { readonly is: 'gone' }
  | { readonly is: 'held'; readonly pid: number | null }
  | { readonly is: 'left'; readonly mark: string };

function parseHolder(text: string): Partial<Holder> | null {
  try {
    const data: unknown = JSON.parse(text);
    return typeof data === 'object' && data !== null ? data : null;
  } catch {
    return null;
  }
}

function look(path: string): Standing {
  let text: string;
  let age: number;
  try {
    age = Date.now() - statSync(path).mtimeMs;
    text = readFileSync(path, 'utf8');
  } catch (error) {
    if (codeOf(error) === 'ENOENT') return { is: 'gone' };
    throw error;
  }
  // Earlier versions wrote no mark; what they wrote is mark enough.
  const mark = createHash('sha256').update(text).digest('hex').slice(0, 32);
  const holder = parseHolder(text);
  if (!holder) return age > WRITING_MS ? { is: 'left', mark } : { is: 'held', pid: null };
  const { pid, began } = holder;
  // A number below 1 is no process, but one that signals would reach many with.
  if (typeof pid !== 'number' || !Number.isInteger(pid) || pid < 1) return { is: 'left', mark };
  return isAlive({ pid, began: began ?? null, mark }) ? { is: 'held', pid } : { is: 'left', mark };
}

/** Gives a file another name where that name is free; the system does it whole or not at all. */
function linkIfFree(from: string, to: string): boolean {
  try {
    linkSync(from, to);
    return true;
  } catch (error) {
    if (codeOf(error) === 'EEXIST') return false;
    throw error;
  }
}

function remove(path: string): void {
  try {
    unlinkSync(path);
  } catch (error) {
    if (codeOf(error) !== 'ENOENT') throw error;
  }
}

/**
 * The right to replace a lock that was left behind. It is a file named by the mark of the lock, which only one can
 * make; where its maker died too, the next right is named by the mark of that one, and so on. Gives the files of the
 * rights that were passed, the own one last, or null where somebody alive has it.
 */
function takeRight(folder: string, own: string, mark: string): string[] | null {
  const passed: string[] = [];
  for (let at = mark; passed.length < ROUNDS;) {
    const right = join(folder, `${LOCK_NAME}.${at}`);
    if (linkIfFree(own, right)) return [...passed, right];
    const standing = look(right);
    if (standing.is === 'held') return null;
    if (standing.is === 'gone') continue;
    passed.push(right);
    at = standing.mark;
  }
  return null;
}

/** Puts our own file in the place of a lock that was left behind. False where somebody else was first. */
function replaceLeft(folder: string, lock: string, own: string, mark: string): boolean {
  const rights = takeRight(folder, own, mark);
  if (!rights) return false;
  const standing = look(lock);
  // With the right, nobody else replaces this lock; it may have been replaced before.
  const isStill = standing.is === 'left' && standing.mark === mark;
  if (isStill) renameSync(own, lock);
  for (const right of isStill ? rights : rights.slice(-1)) remove(right);
  return isStill;
}

function tryTake(folder: string, lock: string, own: string): void {
  for (let round = 0; round < ROUNDS; round++) {
    if (linkIfFree(own, lock)) return remove(own);
    const standing = look(lock);
    if (standing.is === 'held') throw new FolderInUse(folder, standing.pid);
    if (standing.is === 'left' && replaceLeft(folder, lock, own, standing.mark)) return;
  }
  throw new FolderInUse(folder, null);
}

/**
 * Takes a data folder for the caller alone, creating it where needed; a lock left by a dead process is taken over. The
 * lock appears whole (a link to a written file) and is replaced whole (a rename), and only by who has the right to
 * (`takeRight`), so that of many that find it left behind one gets it.
 * Throws `FolderInUse` while another process, or another caller in this one, holds it. The result gives the folder back.
 */
export function lockFolder(folder: string): () => void {
  mkdirSync(folder, { recursive: true });
  const lock = join(folder, LOCK_NAME);
  const mark = randomUUID();
  const own = join(folder, `${LOCK_NAME}.${mark}.new`);
  const holder: Holder = { pid: process.pid, began: beginningOf(process.pid), mark };
  const text = JSON.stringify(holder);
  writeFileSync(own, text, { flag: 'wx' });
  try {
    tryTake(folder, lock, own);
  } catch (error) {
    remove(own);
    throw error;
  }
  return () => {
    try {
      if (readFileSync(lock, 'utf8') === text) unlinkSync(lock);
    } catch (error) {
      if (codeOf(error) !== 'ENOENT') throw error;
    }
  };
}
