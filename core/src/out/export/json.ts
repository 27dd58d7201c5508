import type { Scene } from '../../scene/scene';

function sorted(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(sorted);
  if (value === null || typeof value !== 'object') return value;
  const entries = Object.entries(value).sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0));
  return Object.fromEntries(entries.filter(([, item]) => item !== undefined).map(([key, item]) => [key, sorted(item)]));
}

/** JSON with the names of every object in order, so that equal data gives equal text. */
export function canonicalJson(value: unknown, indent = 0): string {
  return JSON.stringify(sorted(value), null, indent);
}

/** A scene as the file that the application and the command line read. */
export function exportSceneJson(scene: Scene): string {
  return `${canonicalJson(scene, 1)}\n`;
}
