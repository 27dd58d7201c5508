import { whenIdle } from '../when-idle';

/** How often, and how long after what was shown last, milliseconds: that is drawn first, and looked at. */
const [TIMES, LATER] = [6, 120];

/**
 * Does the same thing a few times more while nobody waits for it: the engine makes code quick only after it has run for a
 * while, and the first change of a sentence is to be on screen as soon as the later ones.
 */
export class Rehearsal {
  private left = TIMES;
  private timer: ReturnType<typeof setTimeout> | null = null;

  constructor(private readonly idle: (work: () => void) => unknown = whenIdle) {}

  /** Does something again in a while; what was to be done again before is left out. */
  soon(again: () => void): void {
    this.stop();
    if (this.left === 0) return;
    this.timer = setTimeout(() => {
      const own = this.timer;
      this.idle(() => {
        if (this.timer !== own) return;
        this.timer = null;
        this.left--;
        again();
      });
    }, LATER);
  }

  /** Something else is to be done first. */
  stop(): void {
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = null;
  }
}
