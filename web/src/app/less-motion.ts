/** Whether people asked their system for less motion: what plays by itself else waits until it is played. */
export function wantsLessMotion(): boolean {
  return matchMedia('(prefers-reduced-motion: reduce)').matches;
}
