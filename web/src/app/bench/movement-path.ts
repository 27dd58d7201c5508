import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { READY_PATHS, type Movement } from '@wexikine/core';
import { PathEditor } from '../fields/path-editor';
import type { SceneLine } from '../fields/scene-lines';

type AlongPath = Extract<Movement, { type: 'path' }>;

const FIT_WORDS = { in: 'comes from beyond the frame', out: 'leaves the frame', round: 'as it is drawn' };

/** The line that a movement goes along: a ready one, one of the scene, or drawn here; and how it is put. */
@Component({
  selector: 'wx-movement-path',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [PathEditor],
  templateUrl: './movement-path.html',
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    .row {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 8px;
    }
    select {
      width: auto;
      max-width: 270px;
    }
    .check {
      display: inline-flex;
      align-items: center;
      gap: 5px;
      font-size: 13px;
    }
  `,
})
export class MovementPath {
  readonly movement = input.required<AlongPath>();
  /** Path layers of the scene that is the specimen. */
  readonly lines = input.required<readonly SceneLine[]>();
  readonly changed = output<{ readonly label: string; readonly fields: object }>();

  protected readonly readyPaths = READY_PATHS;
  protected readonly fits = ['in', 'out', 'round'] as const;
  protected readonly fitWords = FIT_WORDS;
  protected readonly readyId = computed(() => READY_PATHS.find(({ d }) => d === this.movement().d)?.id ?? '');

  protected setPath(d: string, fit?: string): void {
    this.changed.emit({ label: 'Another line', fields: { d, ...(fit === undefined ? {} : { fit }) } });
  }

  protected flipTurns(): void {
    this.changed.emit({ label: 'Turning', fields: { turns: !this.movement().turns } });
  }

  protected choose(event: Event): void {
    const { value } = event.target as HTMLSelectElement;
    const ready = READY_PATHS.find(({ id }) => id === value);
    const line = this.lines()[Number(value.slice('line-'.length))];
    if (ready) this.setPath(ready.d, ready.fit);
    else if (line) this.setPath(line.d, 'round');
  }
}
