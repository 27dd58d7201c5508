import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { PlayerStore } from './player.store';
import { RunState } from './run-state';

/** The foot of the scene: who is picked, what a dry run counts, and how many frames are drawn. */
@Component({
  selector: 'wx-scene-foot',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (run.shown(); as view) {
      <span>{{ view.standing.layers.length === 0 ? 'No layers yet' : run.pickedWords() }}</span>
      @if (view.plan; as plan) {
        <span>{{ run.countsText() }}</span>
        @if (view.isPlanning || run.isLong()) {
          <span>{{ run.planningWords() }}</span>
        }
      } @else if (view.isLive && view.standing.layers.length > 0) {
        <span>{{ run.planningWords() }}</span>
      } @else {
        <span>The scene as it stands</span>
      }
      <span class="space"></span>
      <span>{{ rateText() }}</span>
    }
  `,
  styles: `
    :host {
      contain: strict;
      display: flex;
      align-items: center;
      gap: 20px;
      padding: 0 14px;
      border-top: 1px solid var(--line);
      font-size: 12.5px;
      color: var(--ink-soft);
      white-space: nowrap;
    }

    .space {
      flex: 1;
    }
  `,
  host: { role: 'status' },
})
export class SceneFoot {
  protected readonly run = inject(RunState);
  private readonly realRate = toSignal(inject(PlayerStore).rate$, { requireSync: true });

  protected readonly rateText = computed(() => {
    const real = this.realRate();
    return real === null ? 'Paused' : `Playing, ${real.toFixed(1)} frames a second drawn`;
  });
}
