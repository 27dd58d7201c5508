import type { Steps } from '@wexikine/core';

/** Milliseconds after which it is heard what has come meanwhile. */
const LISTEN_EVERY = 8;

function laterOn(): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve));
}

/** Work in steps that leaves room for messages in between, so that it can be stopped; begun anew, what ran before is stopped. */
export class PatientWork {
  private own = 0;

  constructor(
    private readonly pause = laterOn,
    private readonly now = () => performance.now(),
  ) {}

  /** Gives what came of it; null where it was stopped. */
  async run<T>(steps: Steps<T>): Promise<{ readonly result: T } | null> {
    const own = ++this.own;
    let next = this.now() + LISTEN_EVERY;
    for (;;) {
      const { done, value } = steps.next();
      if (done === true) return { result: value };
      if (this.now() < next) continue;
      await this.pause();
      if (own !== this.own) return null;
      next = this.now() + LISTEN_EVERY;
    }
  }

  /** What runs is given up at its next pause. */
  stop(): void {
    this.own++;
  }
}
