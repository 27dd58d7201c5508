import type { ToPlanner } from './messages';

/** Hands messages to a worker in their order; after a heavy one the page has its turn before the next. */
export class Outbox {
  private waiting: { readonly message: ToPlanner; readonly isHeavy: boolean }[] = [];
  private isResting = false;

  constructor(private readonly post: (message: ToPlanner) => void) {}

  send(message: ToPlanner, isHeavy = false): void {
    this.waiting.push({ message, isHeavy });
    this.flush();
  }

  /** Forgets what waits. */
  clear(): void {
    this.waiting = [];
  }

  private flush(): void {
    while (!this.isResting && this.waiting.length > 0) {
      const [{ message, isHeavy }] = this.waiting.splice(0, 1);
      this.post(message);
      if (isHeavy) this.rest();
    }
  }

  private rest(): void {
    this.isResting = true;
    setTimeout(() => {
      this.isResting = false;
      this.flush();
    });
  }
}
