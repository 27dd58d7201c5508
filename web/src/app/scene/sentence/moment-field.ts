import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { formatShort, type Edge, type Scene } from '@wexikine/core';
import { timeCheck } from '../../fields/checks';
import { ValueField } from '../../fields/value-field';

/** A time of the scene: typed, that of a cue, or where asked for an edge of the scene or of the layers. */
@Component({
  selector: 'wx-moment-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ValueField],
  template: `
    <label class="field-label"
      >{{ label() }}
      <select class="text-field" (change)="choose($event)">
        @if (withEdges()) {
          <option value="latest" [selected]="value().by === 'latest'">the latest of them</option>
          <option value="earliest" [selected]="value().by === 'earliest'">the earliest of them</option>
          <option value="scene" [selected]="value().by === 'scene'">the scene’s own</option>
        }
        <option value="time" [selected]="value().by === 'time'">a time</option>
        @for (cue of scene().cues; track cue.id) {
          <option [value]="'cue:' + cue.name" [selected]="isCue(cue.name)">cue {{ cue.name }}</option>
        }
      </select>
    </label>
    @if (time(); as at) {
      <wx-value-field
        label="Time"
        [value]="at"
        [rate]="scene().rate"
        [isFirst]="true"
        [least]="0"
        [check]="check()"
        (changed)="changed.emit({ by: 'time', at: $event })"
      />
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 6px;
    }
  `,
})
export class MomentField {
  readonly label = input.required<string>();
  readonly value = input.required<Edge>();
  readonly scene = input.required<Scene>();
  readonly playhead = input.required<number>();
  readonly withEdges = input(false);
  readonly changed = output<Edge>();

  protected readonly check = computed(() => timeCheck(this.scene().rate));
  protected readonly time = computed(() => {
    const value = this.value();
    return value.by === 'time' ? value.at : null;
  });

  protected isCue(name: string): boolean {
    const value = this.value();
    return value.by === 'cue' && value.cue === name;
  }

  protected choose(event: Event): void {
    const { value } = event.target as HTMLSelectElement;
    if (value.startsWith('cue:')) return this.changed.emit({ by: 'cue', cue: value.slice('cue:'.length) });
    if (value === 'time') return this.changed.emit({ by: 'time', at: formatShort(this.playhead(), this.scene().rate) });
    this.changed.emit({ by: value as 'scene' });
  }
}
