import { randomAt } from '../../basics/random';

/** Size of the night pictures, px. */
export const NIGHT_PICTURE = { width: 960, height: 720 } as const;

const SKIES = [
  ['#2a2350', '#c7761b'],
  ['#12324a', '#4f9f8c'],
  ['#1d1f4a', '#8b4fa0'],
  ['#0c1a36', '#3c6ea5'],
  ['#3a1f3d', '#e08a5b'],
  ['#10243a', '#7aa7a0'],
  ['#1a1430', '#5b6fc0'],
  ['#22304a', '#c9b27c'],
  ['#0a1420', '#2f5a6b'],
] as const;
const STARS = 46;

/** Names of the nine pictures, all invented. */
export const NIGHT_NAMES = [
  'First light',
  'Low tide',
  'Moonrise',
  'The long dark',
  'Ember sky',
  'Reed lamps',
  'Violet hour',
  'Harvest moon',
  'Still water',
] as const;

/** A night over the marsh as SVG: a sky, its stars, a moon, hills and their mirror in the water. */
export function nightPicture(number: number): string {
  const { width, height } = NIGHT_PICTURE;
  const [top, low] = SKIES[number % SKIES.length];
  const draw = (index: number): number => randomAt(101 + number, index);
  const shore = Math.round(height * (0.58 + draw(0) * 0.14));
  const stars = Array.from({ length: STARS }, (_, i) => {
    const [x, y] = [Math.round(draw(10 + i * 3) * width), Math.round(draw(11 + i * 3) * shore * 0.9)];
    return `<circle cx="${x}" cy="${y}" r="${(0.8 + draw(12 + i * 3) * 2.2).toFixed(1)}" fill="#fdf3d7"/>`;
  });
  const moon = { x: Math.round(width * (0.2 + draw(1) * 0.6)), y: Math.round(shore * (0.25 + draw(2) * 0.35)) };
  const radius = Math.round(34 + draw(3) * 46);
  const hills = [0, 1, 2, 3, 4].map(
    (i) =>
      `Q${Math.round(((i + 0.5) * width) / 5)} ${Math.round(shore - 20 - draw(4 + i) * 110)} ${Math.round(((i + 1) * width) / 5)} ${shore - 14}`,
  );
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}"><defs><linearGradient id="s" x2="0" y2="1"><stop stop-color="${top}"/><stop offset="1" stop-color="${low}"/></linearGradient></defs><rect width="${width}" height="${height}" fill="url(#s)"/>${stars.join('')}<circle cx="${moon.x}" cy="${moon.y}" r="${radius}" fill="#f6e3b5"/><path d="M0 ${shore - 14} ${hills.join(' ')} V${height} H0 Z" fill="#0b1a1c"/><rect y="${shore}" width="${width}" height="${height - shore}" fill="${top}" opacity="0.82"/><ellipse cx="${moon.x}" cy="${shore + 60}" rx="${radius}" ry="${Math.round(radius * 0.3)}" fill="#f6e3b5" opacity="0.35"/></svg>`;
}
