import * as z from '../../basics/schema';

/** What a file is for. */
export type FileKind = 'picture' | 'clip' | 'font' | 'sound';

interface FileType {
  readonly kind: FileKind;
  /** Media type. Source: the IANA registry of media types. */
  readonly media: string;
  /** In words. */
  readonly label: string;
}

/** Every type of file that can be kept, by the ending of its name. */
export const FILE_TYPES = {
  png: { kind: 'picture', media: 'image/png', label: 'PNG' },
  jpg: { kind: 'picture', media: 'image/jpeg', label: 'JPEG' },
  webp: { kind: 'picture', media: 'image/webp', label: 'WebP' },
  avif: { kind: 'picture', media: 'image/avif', label: 'AVIF' },
  gif: { kind: 'picture', media: 'image/gif', label: 'GIF' },
  svg: { kind: 'picture', media: 'image/svg+xml', label: 'SVG' },
  webm: { kind: 'clip', media: 'video/webm', label: 'WebM' },
  mp4: { kind: 'clip', media: 'video/mp4', label: 'MP4' },
  ttf: { kind: 'font', media: 'font/ttf', label: 'TTF' },
  otf: { kind: 'font', media: 'font/otf', label: 'OTF' },
  woff2: { kind: 'font', media: 'font/woff2', label: 'WOFF2' },
  wav: { kind: 'sound', media: 'audio/wav', label: 'WAV' },
  mp3: { kind: 'sound', media: 'audio/mpeg', label: 'MP3' },
  ogg: { kind: 'sound', media: 'audio/ogg', label: 'Ogg' },
  flac: { kind: 'sound', media: 'audio/flac', label: 'FLAC' },
} as const satisfies Record<string, FileType>;

/** The ending of a file's name. */
export type FileEnding = keyof typeof FILE_TYPES;

/** Bytes of one file at most. */
export const MOST_FILE_BYTES = 40 * 1024 * 1024;

const ENDINGS = Object.keys(FILE_TYPES) as FileEnding[];
const endingsOf = (kind: FileKind): string => ENDINGS.filter((ending) => FILE_TYPES[ending].kind === kind).join('|');

/** A file's name: the SHA-256 of its content in 64 hexadecimal digits, and its type. */
export const fileNameSchema = z
  .string()
  .regex(new RegExp(`^[0-9a-f]{64}\\.(${ENDINGS.join('|')})$`), 'This is not the name of a file that is kept.');

/** Where layers find a file: `files/` and its name, from the scene's own address or folder. */
const FOLDER = 'files/';

/** Addresses of pictures that are kept as files. */
export const PICTURE_FILE = new RegExp(`^${FOLDER}[0-9a-f]{64}\\.(${endingsOf('picture')})$`);
/** Addresses of moving pictures that are kept as files. */
export const CLIP_FILE = new RegExp(`^${FOLDER}[0-9a-f]{64}\\.(${endingsOf('clip')})$`);
/** Addresses of fonts that are kept as files. */
export const FONT_FILE = new RegExp(`^${FOLDER}[0-9a-f]{64}\\.(${endingsOf('font')})$`);

/** Addresses of sounds that are kept as files. */
export const SOUND_FILE = new RegExp(`^${FOLDER}[0-9a-f]{64}\\.(${endingsOf('sound')})$`);

/** The address of a file by its name. */
export function fileAddress(name: string): string {
  return FOLDER + name;
}

/** The name of the file at an address; null for what stands in the scene itself. */
export function fileAt(address: string): string | null {
  return address.startsWith(FOLDER) ? address.slice(FOLDER.length) : null;
}

/** The type of a file by its name. */
export function fileType(name: string): FileType {
  return FILE_TYPES[name.slice(name.lastIndexOf('.') + 1) as FileEnding];
}

/** Four letters that name an axis of a font. Source: OpenType 1.9, fvar. */
export const axisTagSchema = z
  .string()
  .regex(/^[A-Za-z][A-Za-z0-9 ]{3}$/, 'An axis is named by four letters, such as wdth.');

/** An axis of a font besides its weight, in the axis's own numbers: from where to where, and where it usually stands. */
const fontAxisSchema = z.strictObject({
  tag: axisTagSchema,
  name: z.string().max(100),
  least: z.number(),
  usual: z.number(),
  most: z.number(),
});
/** An axis of a font besides its weight. */
export type FontAxis = Readonly<z.infer<typeof fontAxisSchema>>;

/** What is known of what is in a file: the size of a picture or clip in px, a clip's length in seconds, a font's family, weights and other axes. */
export const fileFactsSchema = z.strictObject({
  width: z.int().min(1).max(1e6).optional(),
  height: z.int().min(1).max(1e6).optional(),
  seconds: z.number().min(0).max(1e6).optional(),
  family: z.string().max(200).optional(),
  /** Lightest and heaviest. */
  weights: z.tuple([z.number(), z.number()]).optional(),
  axes: z.array(fontAxisSchema).max(16).optional(),
});
/** What is known of what is in a file. */
export type FileFacts = Readonly<z.infer<typeof fileFactsSchema>>;

/** What the server tells of a file that it keeps. */
export const keptFileSchema = z.strictObject({
  name: fileNameSchema,
  /** What it was called by who brought it. */
  title: z.string().max(200),
  /** Bytes. */
  size: z.int().min(0),
  added: z.iso.datetime(),
  facts: fileFactsSchema,
  /** Scenes that are not gone for good, with their layers that use it. One that is deleted can still be brought back. */
  uses: z.array(
    z.strictObject({ scene: z.string(), sceneName: z.string(), layers: z.int().min(1), isDeleted: z.boolean() }),
  ),
});
/** What the server tells of a file that it keeps. */
export type KeptFile = Readonly<z.infer<typeof keptFileSchema>>;

/** The name under which a font of one's own is set, so that it never stands for another of the same family. */
export function ownFamily(address: string): string {
  return `own-${(fileAt(address) ?? address).slice(0, 16)}`;
}

/** Where a font stands on its axes, as CSS writes it (`font-variation-settings`); empty where it stands as usual. */
export function axesText(axes: Readonly<Record<string, number>> | undefined): string {
  return Object.entries(axes ?? {})
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([tag, value]) => `"${tag}" ${value}`)
    .join(', ');
}

/**
 * The family that a font of one's own is set as on a canvas, which knows of no axes: one for each place on them. Settings are
 * those of `axesText`.
 */
export function drawnFamily(address: string, settings: string): string {
  return settings === '' ? ownFamily(address) : `${ownFamily(address)}-${settings.replace(/[^A-Za-z0-9.-]+/g, '_')}`;
}
