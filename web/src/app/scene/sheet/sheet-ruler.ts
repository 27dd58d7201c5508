import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { frameTicks, nearestFrame, snapToCue, toFrameGrid, type Scene, type Ticks } from '@wexikine/core';
import { giveUpOnEscape } from '../../give-up';
import type { sheetWaves } from '../sound/sheet-waves';
import type { TimeAxis } from './time-axis';

/** Pixels within which a dragged time takes that of a cue. */
const CUE_REACH = 6;

/** The ruler above the strips: times, cues that can be dragged, and the loudness of sounds; a press on it goes there. */
@Component({
  selector: 'wx-sheet-ruler',
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './sheet-ruler.html',
  styleUrl: './sheet-ruler.scss',
  host: {
    role: 'columnheader',
    '(pointerdown)': 'press($event)',
    '(pointermove)': 'drag($event)',
    '(pointerup)': 'release()',
    '(pointercancel)': 'release()',
  },
})
export class SheetRuler {
  readonly axis = input.required<TimeAxis>();
  readonly scene = input.required<Scene>();
  /** The cues of the scene as it stands. */
  readonly cues = input.required<Scene['cues']>();
  readonly waves = input.required<ReturnType<typeof sheetWaves>>();
  readonly seek = output<Ticks>();
  readonly cueMoved = output<{ readonly cue: string; readonly at: Ticks }>();

  private isSeeking = false;
  protected readonly draggedCue = signal<{ id: string; at: number } | null>(null);
  protected readonly cueMarks = computed(() => {
    const dragged = this.draggedCue();
    return this.cues().map(({ id, name, at }) => ({
      id,
      name,
      x: Math.round(this.axis().xAt(dragged?.id === id ? dragged.at : at)),
    }));
  });

  constructor() {
    giveUpOnEscape(
      () => this.draggedCue() !== null,
      () => this.draggedCue.set(null),
    );
  }

  protected pressCue(event: PointerEvent, id: string): void {
    event.stopPropagation();
    (event.target as Element).setPointerCapture(event.pointerId);
    const cue = this.cues().find((standing) => standing.id === id);
    if (cue) this.draggedCue.set({ id, at: cue.at });
  }

  protected dragCue(event: PointerEvent): void {
    const dragged = this.draggedCue();
    if (!dragged) return;
    const time = this.timeUnder(event);
    this.draggedCue.set({ id: dragged.id, at: toFrameGrid(Math.round(time), this.scene().rate) });
  }

  protected releaseCue(): void {
    const dragged = this.draggedCue();
    this.draggedCue.set(null);
    const standing = this.cues().find(({ id }) => id === dragged?.id);
    if (dragged && standing && standing.at !== dragged.at) this.cueMoved.emit({ cue: dragged.id, at: dragged.at });
  }

  protected press(event: PointerEvent): void {
    this.isSeeking = true;
    (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
    this.drag(event);
  }

  protected drag(event: PointerEvent): void {
    if (!this.isSeeking) return;
    const { rate, cues } = this.scene();
    const time = snapToCue(cues, this.timeUnder(event), this.axis().ticksOf(CUE_REACH));
    this.seek.emit(nearestFrame(time, rate) * frameTicks(rate));
  }

  private timeUnder(event: MouseEvent): number {
    return Math.min(this.scene().length, Math.max(0, this.axis().timeAt(this.axis().xOf(event))));
  }

  protected release(): void {
    this.isSeeking = false;
  }
}
