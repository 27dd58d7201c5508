import { mkdirSync, readFileSync, unlinkSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** Another process holds the folder. */
export class FolderInUse extends Error {
  constructor(
    readonly folder: string,
    readonly pid: number,
  ) {
    super(
      `The data folder ${folder} is in use by another Wexikine server (process ${pid}). ` +
        'Stop that one first, or choose another folder with WEXIKINE_DATA.',
    );
  }
}

interface Holder {
  readonly pid: number;
  /** When that process began, so that a later process with the same number is not taken for it. */
  readonly began: string | null;
}

const LOCK_NAME = 'wexikine.lock';
/** Field 22 of /proc/PID/stat, counted after the command's closing bracket. */
const START_TIME_FIELD = 19;

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
    if ((error as NodeJS.ErrnoException).code !== 'EPERM') return false;
  }
  const now = beginningOf(pid);
  return began === null || now === null || began === now;
}

function readHolder(path: string): Holder | null {
  try {
    const holder = JSON.parse(readFileSync(path, 'utf8')) as Partial<Holder>;
    return typeof holder.pid === 'number' ? { pid: holder.pid, began: holder.began ?? null } : null;
  } catch {
    return null;
  }
}

function tryCreate(path: string): boolean {
  const holder: Holder = { pid: process.pid, began: beginningOf(process.pid) };
  try {
    writeFileSync(path, JSON.stringify(holder), { flag: 'wx' });
    return true;
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'EEXIST') return false;
    throw error;
  }
}

/**
 * Takes a data folder for this process alone, creating it where needed; a lock left by a dead process is taken over.
 * Throws `FolderInUse` while another process holds it. The result gives the folder back.
 */
export function lockFolder(folder: string): () => void {
  mkdirSync(folder, { recursive: true });
  const path = join(folder, LOCK_NAME);
  if (!tryCreate(path)) {
    const holder = readHolder(path);
    if (holder && isAlive(holder)) throw new FolderInUse(folder, holder.pid);
    unlinkSync(path);
    if (!tryCreate(path)) throw new FolderInUse(folder, readHolder(path)?.pid ?? 0);
  }
  return () => unlinkSync(path);
}
