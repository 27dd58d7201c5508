const MEGABYTE = 1024 * 1024;

/** What a pack may be at most; far above any real library, far below what would stop the server. */
export const PACK_LIMITS = {
  /** Bytes of the zip file. */
  file: 32 * MEGABYTE,
  /** Bytes of everything in it, unpacked. */
  unpacked: 128 * MEGABYTE,
  entries: 20_000,
} as const;

/** A number of bytes for people: "45 MB". */
export function megabytes(bytes: number): string {
  return `${Math.round(bytes / MEGABYTE)} MB`;
}
