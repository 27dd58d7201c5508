import { megabytes, PACK_LIMITS } from './limits';

/** Why a pack cannot be read or imported. */
export type PackProblem =
  | { readonly code: 'empty' }
  | { readonly code: 'not-a-zip' }
  | { readonly code: 'cut-off' }
  | { readonly code: 'file-too-large'; readonly bytes: number }
  | { readonly code: 'unpacked-too-large'; readonly bytes: number }
  | { readonly code: 'too-many-entries'; readonly count: number }
  | { readonly code: 'encrypted'; readonly file: string }
  | { readonly code: 'unknown-packing'; readonly file: string }
  | { readonly code: 'unsafe-path'; readonly file: string }
  | { readonly code: 'doubled-file'; readonly file: string }
  | { readonly code: 'damaged'; readonly file: string }
  | { readonly code: 'no-list' }
  | { readonly code: 'not-json'; readonly file: string; readonly reason: string }
  | { readonly code: 'not-a-pack' }
  | { readonly code: 'newer-format'; readonly format: string }
  | { readonly code: 'bad-list'; readonly path: string; readonly reason: string }
  | { readonly code: 'missing-file'; readonly file: string; readonly id: string }
  | { readonly code: 'doubled-item'; readonly id: string }
  | { readonly code: 'wrong-schema'; readonly file: string; readonly path: string; readonly reason: string }
  | { readonly code: 'wrong-id'; readonly file: string; readonly listed: string; readonly found: string }
  | { readonly code: 'missing-reference'; readonly item: string; readonly where: string; readonly id: string }
  | {
      readonly code: 'unknown-revision';
      readonly item: string;
      readonly where: string;
      readonly id: string;
      readonly revision: number;
    }
  | { readonly code: 'wrong-reference'; readonly item: string; readonly where: string; readonly wanted: string }
  | { readonly code: 'circle'; readonly items: readonly string[] }
  | { readonly code: 'broken-formula'; readonly item: string; readonly revision: string; readonly reason: string };

const AGAIN = 'Export it again, or ask for it once more.';

/** A pack's problem as a sentence: what, where, what to do. */
export function describePackProblem(problem: PackProblem): string {
  switch (problem.code) {
    case 'empty':
      return `The file is empty. ${AGAIN}`;
    case 'not-a-zip':
      return 'This is not a zip file. Choose a pack that Wexikine exported (its name ends in .zip).';
    case 'cut-off':
      return `The zip file is cut off: its end is missing. ${AGAIN}`;
    case 'file-too-large':
      return `The file has ${megabytes(problem.bytes)}, and a pack has at most ${megabytes(PACK_LIMITS.file)}. Export fewer items at a time.`;
    case 'unpacked-too-large':
      return `Unpacked it would take ${megabytes(problem.bytes)}, and a pack takes at most ${megabytes(PACK_LIMITS.unpacked)}. Export fewer items at a time.`;
    case 'too-many-entries':
      return `It holds ${problem.count} files, and a pack has at most ${PACK_LIMITS.entries}. Export fewer items at a time.`;
    case 'encrypted':
      return `“${problem.file}” is locked with a password, and packs are not. Export it without one.`;
    case 'unknown-packing':
      return `“${problem.file}” is packed in a way that cannot be read. Export the pack again as a plain zip file.`;
    case 'unsafe-path':
      return `“${problem.file}” points outside the pack. Such a file is never unpacked; do not trust where it came from.`;
    case 'doubled-file':
      return `“${problem.file}” is in the zip file twice. ${AGAIN}`;
    case 'damaged':
      return `“${problem.file}” is damaged: its contents do not agree with its checksum. ${AGAIN}`;
    case 'no-list':
      return 'The zip file has no pack.json, so it is not a pack. Choose one that Wexikine exported.';
    case 'not-json':
      return `“${problem.file}” cannot be read. ${problem.reason}`;
    case 'not-a-pack':
      return 'Its pack.json is not that of a pack: “format” must be “wexikine-pack-1”. Choose another file.';
    case 'newer-format':
      return `It was written by a newer Wexikine (${problem.format}). Update this one, then import it.`;
    case 'bad-list':
      return `In pack.json, ${problem.path}: ${problem.reason} ${AGAIN}`;
    case 'missing-file':
      return `pack.json lists “${problem.id}”, and its file ${problem.file} is missing. ${AGAIN}`;
    case 'doubled-item':
      return `The item “${problem.id}” is listed twice. Remove one of the two from pack.json.`;
    case 'wrong-schema':
      return `In ${problem.file}, ${problem.path}: ${problem.reason}`;
    case 'wrong-id':
      return `${problem.file} is listed as “${problem.listed}”, and says that it is “${problem.found}”. Make the two agree.`;
    case 'missing-reference':
      return `“${problem.item}” needs “${problem.id}” (${problem.where}), which is neither in the pack nor here. Export it along.`;
    case 'unknown-revision':
      return `“${problem.item}” takes revision ${problem.revision} of “${problem.id}” (${problem.where}), and there is no such revision, in the pack or here. Export that item newly along.`;
    case 'wrong-reference':
      return `“${problem.item}” refers to something else than ${problem.wanted} as ${problem.where}. Mend it where the pack was made.`;
    case 'circle':
      return `These refer to each other in a circle: ${problem.items.map((id) => `“${id}”`).join(' → ')}. Take one of the links out.`;
    case 'broken-formula':
      return `“${problem.item}” (${problem.revision}) cannot run. ${problem.reason}`;
  }
}
