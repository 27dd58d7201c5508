/** What an SVG file is as a picture: cleaned text and its size in px. */
export interface CleanDrawing {
  readonly text: string;
  readonly width: number;
  readonly height: number;
}

/** Elements that could run or fetch something, or show a page of their own. */
const FORBIDDEN =
  'script, foreignObject, iframe, object, embed, audio, video, animate, set, animateTransform, animateMotion, handler, listener';
/** Size of a drawing that states none. Source: CSS Images 3, default object size. */
const STANDARD = { width: 300, height: 150 };
/** Addresses that stay within the file. */
const OWN = /^(#|data:image\/(png|jpeg|webp|gif)[;,])/i;

function lengthOf(text: string | null): number | null {
  const match = /^\s*([\d.]+)\s*(px)?\s*$/.exec(text ?? '');
  const value = match ? Number(match[1]) : NaN;
  return Number.isFinite(value) && value > 0 ? value : null;
}

/** Cleans an SVG file so that nothing in it runs or is fetched; null where it is no SVG. */
export function cleanDrawing(text: string): CleanDrawing | null {
  const document = new DOMParser().parseFromString(text, 'image/svg+xml');
  const root = document.documentElement;
  if (root.localName !== 'svg' || document.querySelector('parsererror')) return null;
  for (const element of Array.from(document.querySelectorAll(FORBIDDEN))) element.remove();
  for (const element of [root, ...Array.from(root.querySelectorAll('*'))]) {
    for (const { name, value } of Array.from(element.attributes)) {
      const isAddress = /(^|:)href$/i.test(name) || name === 'src';
      const reaches = /url\(\s*['"]?(?!['"]?#)/i.test(value) || (isAddress && !OWN.test(value.trim()));
      if (/^on/i.test(name) || reaches || /^javascript:/i.test(value.trim())) element.removeAttribute(name);
    }
    if (element.localName === 'style')
      element.textContent = (element.textContent ?? '').replace(/@import[^;]*;?|url\(\s*['"]?(?!['"]?#)[^)]*\)/gi, '');
  }
  const box = (root.getAttribute('viewBox') ?? '')
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  const [boxWidth, boxHeight] = box.length === 4 && box.every(Number.isFinite) ? [box[2], box[3]] : [null, null];
  const width = lengthOf(root.getAttribute('width')) ?? boxWidth ?? STANDARD.width;
  const height =
    lengthOf(root.getAttribute('height')) ?? (boxWidth && boxHeight ? (width * boxHeight) / boxWidth : STANDARD.height);
  root.setAttribute('width', String(width));
  root.setAttribute('height', String(height));
  return { text: new XMLSerializer().serializeToString(root), width, height };
}
