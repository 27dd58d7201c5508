/** Width and height of a picture in its own pixels. */
export interface PictureSize {
  readonly width: number;
  readonly height: number;
}

/** Bytes at the beginning of a picture that say how large it is; JPEG may keep a preview before them. */
const HEAD_BYTES = 512 * 1024;
/** What browsers take for a drawing that does not say how large it is (CSS 2.2, section 10.3.2). */
const UNSAID: PictureSize = { width: 300, height: 150 };

function bytesOf(base64: string): Uint8Array {
  const head = base64.slice(0, Math.ceil(HEAD_BYTES / 3) * 4);
  return Uint8Array.from(atob(head.slice(0, head.length - (head.length % 4))), (sign) => sign.charCodeAt(0));
}

/** Source: PNG (ISO/IEC 15948), the header chunk. */
function pngSize(view: DataView): PictureSize {
  return { width: view.getUint32(16), height: view.getUint32(20) };
}

/**
 * Source: JPEG (ITU-T T.81), the frame header: the first of the markers C0 to CF but C4, C8 and CC. Any number of bytes FF
 * may stand before a marker (B.1.1.2).
 */
function jpegSize(view: DataView): PictureSize | null {
  for (let at = 2; at + 9 < view.byteLength;) {
    if (view.getUint8(at) !== 0xff) return null;
    const marker = view.getUint8(at + 1);
    if (marker === 0xff) {
      at++;
      continue;
    }
    const isFrame = marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker);
    if (isFrame) return { width: view.getUint16(at + 7), height: view.getUint16(at + 5) };
    at += 2 + view.getUint16(at + 2);
  }
  return null;
}

/** Source: the WebP container specification: lossy, lossless and extended files. */
function webpSize(view: DataView): PictureSize | null {
  const three = (at: number): number => view.getUint16(at, true) + (view.getUint8(at + 2) << 16);
  switch (view.getUint8(15)) {
    case 0x20:
      return { width: view.getUint16(26, true) & 0x3fff, height: view.getUint16(28, true) & 0x3fff };
    case 0x4c: {
      const bits = view.getUint32(21, true);
      return { width: (bits & 0x3fff) + 1, height: ((bits >>> 14) & 0x3fff) + 1 };
    }
    case 0x58:
      return { width: three(24) + 1, height: three(27) + 1 };
    default:
      return null;
  }
}

function svgSize(text: string): PictureSize {
  const tag = /<svg\b[^>]*>/i.exec(text)?.[0] ?? '';
  const length = (name: string): number =>
    Number(new RegExp(`\\s${name}\\s*=\\s*["']\\s*([\\d.]+)(px)?\\s*["']`).exec(tag)?.[1]);
  const [width, height] = [length('width'), length('height')];
  if (width > 0 && height > 0) return { width, height };
  const box = /\sviewBox\s*=\s*["']\s*[-\d.]+[\s,]+[-\d.]+[\s,]+([\d.]+)[\s,]+([\d.]+)\s*["']/.exec(tag);
  if (!box) return UNSAID;
  const share = Number(box[2]) / Number(box[1]);
  if (width > 0) return { width, height: width * share };
  if (height > 0) return { width: height / share, height };
  return { width: Number(box[1]), height: Number(box[2]) };
}

/** Size of a picture that is embedded as a data: address (PNG, JPEG, WebP or SVG); null where it cannot be read. */
export function pictureSize(href: string): PictureSize | null {
  const [, kind, isBase64, data] =
    /^data:image\/(png|jpeg|webp|svg\+xml)(?:;[^,;]*)*?(;base64)?,(.*)$/s.exec(href) ?? [];
  if (kind === undefined) return null;
  try {
    if (kind === 'svg+xml') {
      return svgSize(isBase64 ? new TextDecoder().decode(bytesOf(data)) : decodeURIComponent(data));
    }
    const bytes = bytesOf(data);
    const view = new DataView(bytes.buffer);
    const size = kind === 'png' ? pngSize(view) : kind === 'jpeg' ? jpegSize(view) : webpSize(view);
    return size && size.width > 0 && size.height > 0 ? size : null;
  } catch {
    // Whatever is cut off or wrong in it: it is no picture that could be drawn.
    return null;
  }
}
