import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, input, signal } from '@angular/core';
import type { SaveState } from './scene.store';

const EVERY = 5_000;

/** Whether the scene is saved, in words; what went wrong stands there until it is mended. */
@Component({
  selector: 'wx-save-note',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<span class="chip" role="status" [class.bad]="isBad()" [title]="detail()">{{ text() }}</span>`,
  styles: `
    .bad {
      background: var(--rose-wash);
      color: var(--rose);
      font-weight: 600;
    }
  `,
})
export class SaveNote {
  readonly state = input.required<SaveState>();
  private readonly now = signal(Date.now());

  constructor() {
    const timer = setInterval(() => this.now.set(Date.now()), EVERY);
    inject(DestroyRef).onDestroy(() => clearInterval(timer));
  }

  protected readonly isBad = computed(() => ['offline', 'refused', 'conflict'].includes(this.state().type));

  protected readonly text = computed(() => {
    const state = this.state();
    switch (state.type) {
      case 'saved':
        return this.ago(state.at);
      case 'waiting':
      case 'saving':
        return 'saving…';
      case 'offline':
        return 'not saved: no connection, trying again';
      case 'refused':
        return 'not saved';
      case 'conflict':
        return 'changed in another window';
    }
  });

  protected readonly detail = computed(() => {
    const state = this.state();
    return 'message' in state ? state.message : '';
  });

  private ago(at: number): string {
    const seconds = Math.round((this.now() - at) / 1_000);
    if (seconds < 5) return 'saved';
    return seconds < 90 ? `saved ${seconds} s ago` : `saved ${Math.round(seconds / 60)} min ago`;
  }
}
