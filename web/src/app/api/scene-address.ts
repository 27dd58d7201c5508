/** Where all of a scene is read, packed. */
export function sceneAddress(id: string): string {
  return `/api/scenes/${encodeURIComponent(id)}/packed`;
}
