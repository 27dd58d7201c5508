import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import {
  addCues,
  beatTimes,
  counted,
  formatShort,
  frameTicks,
  intervalOfTempo,
  parseTimeEntry,
  secondsFromTicks,
  sortCues,
  tempoOfTaps,
  toFrameGrid,
  type Cue,
  type Rate,
  type Ticks,
} from '@wexikine/core';
import { timeCheck } from '../../fields/checks';
import { NumberField } from '../../fields/number-field';
import { ValueField } from '../../fields/value-field';
import { Icon } from '../../icons/icon';

/** Cues as they are to be, and what that step is called. */
export interface CueChange {
  readonly label: string;
  readonly cues: readonly Cue[];
}

function newCueId(): string {
  return `cue-${crypto.randomUUID().slice(0, 13)}`;
}

/** The cues of a scene: at the playhead, at equal beats, by tapping along; each with its name and time. */
@Component({
  selector: 'wx-cues-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, NumberField, ValueField],
  templateUrl: './cues-panel.html',
  styleUrl: './cues-panel.scss',
  host: { '(document:keydown)': 'key($event)' },
})
export class CuesPanel {
  readonly cues = input.required<readonly Cue[]>();
  readonly rate = input.required<Rate>();
  readonly time = input.required<number>();
  readonly changed = output<CueChange>();
  readonly seek = output<number>();
  readonly exported = output();
  readonly imported = output<File>();

  protected readonly sorted = computed(() => sortCues(this.cues()));
  protected readonly check = computed(() => timeCheck(this.rate()));
  protected readonly isTapping = signal(false);
  protected readonly taps = signal<readonly Ticks[]>([]);
  protected readonly tempo = computed(() => tempoOfTaps(this.taps()));
  protected readonly first = signal('0f');
  protected readonly every = signal('0.5s');
  protected readonly count = signal(8);
  protected readonly perMinute = computed(() => {
    const seconds = secondsFromTicks(this.ticks(this.every()));
    return seconds > 0 ? Number((60 / seconds).toFixed(2)) : 0;
  });

  protected text(at: Ticks): string {
    return formatShort(at, this.rate());
  }

  protected addAt(at: Ticks): void {
    const on = toFrameGrid(Math.round(at), this.rate());
    this.change(`Add a cue at ${this.text(on)}`, addCues(this.cues(), [on], newCueId));
  }

  protected addBeats(event: Event): void {
    event.preventDefault();
    const beats = { first: this.ticks(this.first()), interval: this.ticks(this.every()), count: this.count() };
    if (beats.interval < frameTicks(this.rate())) return;
    const cues = addCues(this.cues(), beatTimes(beats, this.rate()), newCueId, 'Beat');
    const added = cues.length - this.cues().length;
    if (added > 0) this.change(`Add ${counted(added, 'beat')}`, cues);
  }

  protected setEvery(text: string): void {
    this.every.set(text);
  }

  protected setTempo(perMinute: number): void {
    this.every.set(`${Number(secondsFromTicks(intervalOfTempo(perMinute)).toFixed(6))}s`);
  }

  /** Ends tapping: the taps become cues, as they were tapped. */
  protected toggleTaps(): void {
    if (this.isTapping() && this.taps().length > 0) {
      const times = this.taps().map((at) => toFrameGrid(Math.round(at), this.rate()));
      const tempo = this.tempo();
      if (tempo !== null && tempo <= 1000)
        this.every.set(`${Number(secondsFromTicks(intervalOfTempo(tempo)).toFixed(3))}s`);
      this.change(`Add ${times.length} tapped cues`, addCues(this.cues(), times, newCueId, 'Tap'));
    }
    this.taps.set([]);
    this.isTapping.update((isTapping) => !isTapping);
  }

  protected key(event: KeyboardEvent): void {
    const isTyping = (event.target as HTMLElement).closest('input, textarea, select') !== null;
    if (!this.isTapping() || isTyping || event.key.toLowerCase() !== 't' || event.repeat) return;
    event.preventDefault();
    this.taps.update((taps) => [...taps, this.time()]);
  }

  protected rename(cue: Cue, event: Event): void {
    const name = (event.target as HTMLInputElement).value.trim();
    if (name !== '') this.replace({ ...cue, name }, `Rename a cue to “${name}”`);
  }

  protected move(cue: Cue, text: string): void {
    const at = toFrameGrid(this.ticks(text), this.rate());
    if (at !== cue.at) this.replace({ ...cue, at }, `Move “${cue.name}” to ${this.text(at)}`);
  }

  protected remove(cue: Cue): void {
    this.change(
      `Remove “${cue.name}”`,
      this.cues().filter(({ id }) => id !== cue.id),
    );
  }

  protected read(event: Event): void {
    const field = event.target as HTMLInputElement;
    const file = field.files?.[0];
    field.value = '';
    if (file) this.imported.emit(file);
  }

  private ticks(text: string): Ticks {
    const entry = parseTimeEntry(text, this.rate());
    return entry.ok ? entry.entry.ticks : 0;
  }

  private replace(cue: Cue, label: string): void {
    this.change(
      label,
      this.cues().map((standing) => (standing.id === cue.id ? cue : standing)),
    );
  }

  private change(label: string, cues: readonly Cue[]): void {
    this.changed.emit({ label, cues: sortCues(cues) });
  }
}
