import { Injectable, signal } from '@angular/core';

const KEY = 'wexikine.guide';

/** Whether the guided first batch is offered: until it was done once in this browser, or left for good. */
@Injectable({ providedIn: 'root' })
export class GuideService {
  private readonly state = signal(localStorage.getItem(KEY) !== 'done');
  readonly isOffered = this.state.asReadonly();

  finish(): void {
    localStorage.setItem(KEY, 'done');
    this.state.set(false);
  }

  /** Offers it again, where somebody asks for it. */
  again(): void {
    localStorage.removeItem(KEY);
    this.state.set(true);
  }
}
