import { restValue, type Layer } from '@wexikine/core';

/** Ratios to choose from. */
export const RATIOS = ['1:1', '4:3', '3:2', '16:9', '21:9', '4:5', '3:4', '2:3', '9:16'] as const;
const LARGEST = 100;

/** True for a layer that shows a picture or a clip. */
export function isPictured({ source }: Layer): boolean {
  return source.type === 'picture' || source.type === 'clip';
}

/** Width by height of a layer's box. */
export function ratioOf(layer: Layer): number {
  return restValue(layer, 'size.x') / Math.max(1e-9, restValue(layer, 'size.y'));
}

/** A ratio as it is typed: 16:9, 1.85, or that of the file; null for what is none. */
export function readRatio(text: string): number | 'file' | null {
  const plain = text.trim().toLowerCase().replace(',', '.');
  if (plain === 'file') return 'file';
  const [, width, height = '1'] = /^(\d+(?:\.\d+)?)(?:\s*[:×x/]\s*(\d+(?:\.\d+)?))?$/.exec(plain) ?? [];
  const ratio = Number(width) / Number(height);
  return ratio >= 1 / LARGEST && ratio <= LARGEST ? ratio : null;
}

/** A ratio for people: "16:9" where it is one of the usual ones, else "1.85:1". */
export function commonRatio(ratio: number): string {
  const known = RATIOS.find((text) => Math.abs((readRatio(text) as number) - ratio) < 0.002);
  return known ?? `${Number(ratio.toFixed(2))}:1`;
}

/** The size that most of the other pictures show, of equal ones the one that comes first; null where there are none, or these have it. */
export function neighbourSize(
  own: readonly Layer[],
  all: readonly Layer[],
): { readonly width: number; readonly height: number } | null {
  const ids = new Set(own.map(({ id }) => id));
  const counts = new Map<string, { width: number; height: number; count: number }>();
  for (const layer of all) {
    if (ids.has(layer.id) || !isPictured(layer)) continue;
    const [width, height] = [restValue(layer, 'size.x'), restValue(layer, 'size.y')];
    const known = counts.get(`${width} ${height}`) ?? { width, height, count: 0 };
    known.count++;
    counts.set(`${width} ${height}`, known);
  }
  const most = [...counts.values()].reduce<{ width: number; height: number; count: number } | null>(
    (best, one) => (best && best.count >= one.count ? best : one),
    null,
  );
  const isThere = own.every(
    (layer) => restValue(layer, 'size.x') === most?.width && restValue(layer, 'size.y') === most.height,
  );
  return most && !isThere ? { width: most.width, height: most.height } : null;
}
