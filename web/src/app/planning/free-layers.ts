import { stayingOut, type Layer, type Scene } from '@wexikine/core';

/** Layers of a scene that can take part in runs: neither guides, nor locked, nor hidden. */
export function freeLayers(scene: Scene): Layer[] {
  const reasons = stayingOut(scene);
  return scene.layers.filter(({ id }) => reasons.get(id) === null);
}

/** The tag that most layers carry which take part in runs; null where no layer has one. */
export function commonestTag(scene: Scene): string | null {
  const counts = new Map<string, number>();
  for (const { tags } of freeLayers(scene)) {
    for (const tag of tags) counts.set(tag, (counts.get(tag) ?? 0) + 1);
  }
  const [first] = [...counts].sort((a, b) => b[1] - a[1]);
  return first?.[0] ?? null;
}
