import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import {
  applyTimeEntry,
  describeEntryProblem,
  formatRate,
  formatShort,
  formatTimecode,
  parseTimeEntry,
  type Scene,
} from '@wexikine/core';
import { MatMenuModule } from '@angular/material/menu';
import { Icon } from '../../icons/icon';
import { PLAY_MODES, type PlayMode } from '../player-frames';
import type { PlayWay } from '../player.store';
import type { PreviewOptions } from './preview';

const MODE_WORDS: Readonly<Record<PlayMode, string>> = {
  loop: 'Again and again',
  once: 'Once',
  'to-and-fro': 'To and fro',
};

/** Playing, stepping, jumping between keys, entering a time, and what the preview shows. */
@Component({
  selector: 'wx-transport',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, MatMenuModule],
  templateUrl: './transport.html',
  styleUrl: './transport.scss',
})
export class Transport {
  readonly scene = input.required<Scene>();
  readonly time = input.required<number>();
  readonly isPlaying = input.required<boolean>();
  readonly isLooping = input.required<boolean>();
  readonly way = input.required<PlayWay>();
  /** Whether there is a run whose stretch can be played alone. */
  readonly canPlayRun = input(false);
  readonly options = input.required<PreviewOptions>();
  readonly zoom = input.required<number>();

  readonly play = output();
  readonly loop = output();
  readonly wayChange = output<Partial<PlayWay>>();
  readonly rangeEnd = output<'from' | 'to'>();
  readonly playRun = output();
  readonly step = output<number>();
  readonly jump = output<1 | -1>();
  readonly go = output<number>();
  readonly optionsChange = output<PreviewOptions>();
  readonly fit = output();
  readonly zoomBy = output<number>();
  /** The preview has the whole window. */
  readonly isAlone = input(false);
  readonly alone = output();

  protected readonly problem = signal<string | null>(null);
  protected readonly timecode = computed(() => formatTimecode(this.time(), this.scene().rate));
  protected readonly modes = PLAY_MODES;
  protected readonly modeWords = MODE_WORDS;
  protected readonly paces = [1, 0.5, 0.25];
  protected readonly paceWords = computed(() => ({ 1: '×1', 0.5: '×½', 0.25: '×¼' })[this.way().pace] ?? '×1');
  protected readonly facts = computed(() => {
    const { rate, length } = this.scene();
    const { range } = this.way();
    const stretch = range
      ? `${formatShort(range.from, rate)} – ${formatShort(range.to, rate)}`
      : formatShort(length, rate);
    return `${formatRate(rate)} fps · ${stretch}`;
  });
  protected readonly percent = computed(() => `${Math.round(this.zoom() * 100)} %`);

  protected enter(event: Event): void {
    const field = event.target as HTMLInputElement;
    const { rate } = this.scene();
    const result = parseTimeEntry(field.value, rate);
    if (!result.ok) return this.problem.set(describeEntryProblem(result.problem, rate));
    this.problem.set(null);
    this.go.emit(applyTimeEntry(result.entry, this.time()));
    field.blur();
  }

  protected leave(event: Event): void {
    (event.target as HTMLInputElement).value = this.timecode();
    this.problem.set(null);
  }

  protected set(part: Partial<PreviewOptions>): void {
    this.optionsChange.emit({ ...this.options(), ...part });
  }
}
