/** Work that takes long, in steps after each of which it may be left alone or given up; at its end what came of it. */
export type Steps<T> = Generator<undefined, T>;

/** Does all steps at once. */
export function toItsEnd<T>(steps: Steps<T>): T {
  for (;;) {
    const { done, value } = steps.next();
    if (done === true) return value;
  }
}
