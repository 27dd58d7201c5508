import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import {
  addCues,
  applyTimeEntry,
  counted,
  describeEntryProblem,
  formatShort,
  parseTimeEntry,
  ticksFromSeconds,
  toFrameGrid,
  type Cue,
  type Layer,
  type LayerSource,
  type Rate,
  type Ticks,
} from '@wexikine/core';
import { NumberField } from '../../fields/number-field';
import { ValueField } from '../../fields/value-field';
import type { LayerStep } from '../../looks/layer-step';
import { Sounds, type SoundState } from './sounds';

type SoundSource = Extract<LayerSource, { type: 'sound' }>;

const EVERY = [1, 2, 4, 8] as const;
const newId = (): string => `cue-${crypto.randomUUID().slice(0, 13)}`;

/** A sound layer: when it starts, from where in the sound, how long and how loud; and its beats as cues. */
@Component({
  selector: 'wx-layer-sound',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NumberField, ValueField],
  template: `
    <div class="times">
      <wx-value-field
        label="Starts"
        [value]="text(layer().span.in)"
        [rate]="rate()"
        [least]="0"
        [isLazy]="true"
        [check]="check"
        (changed)="setStart($event)"
      />
      <wx-value-field
        label="From, in the sound"
        [value]="text(source().from)"
        [rate]="rate()"
        [least]="0"
        [isLazy]="true"
        [check]="check"
        (changed)="setFrom($event)"
      />
      <wx-value-field
        label="Lasts"
        [value]="text(layer().span.out - layer().span.in)"
        [rate]="rate()"
        [least]="0"
        [isLazy]="true"
        [check]="check"
        (changed)="setLength($event)"
      />
      <wx-number-field label="Loudness, %" [least]="0" [most]="400" [value]="gain()" (changed)="setGain($event)" />
    </div>
    <h3>
      Beats <small>{{ about() }}</small>
    </h3>
    @if (beats().length > 0) {
      <div class="beats">
        <label class="field-label"
          >Cues on
          <select class="text-field" (change)="every.set(+value($event))">
            @for (one of choices; track one) {
              <option [value]="one" [selected]="one === every()">
                {{ one === 1 ? 'every beat' : 'every ' + one + (one === 2 ? 'nd' : 'th') + ' beat' }}
              </option>
            }
          </select>
        </label>
        <wx-number-field
          label="From beat"
          [least]="1"
          [most]="beats().length"
          [isWhole]="true"
          [value]="from()"
          (changed)="first.set($event)"
        />
        <button class="wx-button" type="button" [disabled]="fresh().length === 0" (click)="addBeats()">
          {{ fresh().length === 0 ? 'These have cues' : 'Add ' + counted(fresh().length, 'cue') }}
        </button>
      </div>
    }
  `,
  styles: `
    .times,
    .beats {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 12px;
      align-items: end;
    }
    .times > * {
      width: 132px;
    }
    h3 {
      margin: 12px 0 4px;
      font: 600 13px/1.4 var(--font-text);
    }
    small {
      margin-left: 6px;
      font-weight: 400;
      color: var(--ink-soft);
    }
  `,
})
export class LayerSound {
  readonly layer = input.required<Layer>();
  readonly cues = input.required<readonly Cue[]>();
  readonly rate = input.required<Rate>();
  readonly step = output<LayerStep>();

  private readonly sounds = inject(Sounds);
  private readonly states = toSignal(this.sounds.states$, { initialValue: new Map<string, SoundState>() });
  protected readonly choices = EVERY;
  protected readonly counted = counted;
  protected readonly every = signal<number>(1);
  protected readonly first = signal(1);
  protected readonly source = computed(() => this.layer().source as SoundSource);
  protected readonly gain = computed(() => Math.round(this.source().gain * 100));
  private readonly state = computed(() => this.states().get(this.source().href) ?? 'loading');

  /** Beats that are heard in the scene, at scene times. */
  protected readonly beats = computed((): readonly Ticks[] => {
    const state = this.state();
    if (state === 'loading' || 'problem' in state || !state.beats) return [];
    const { span } = this.layer();
    return state.beats.times
      .map((at) => ticksFromSeconds(at) - this.source().from + span.in)
      .filter((at) => at >= span.in && at < span.out);
  });
  /** The beat from which cues are wanted: the sound may have become shorter since it was chosen. */
  protected readonly from = computed(() => Math.min(this.first(), Math.max(1, this.beats().length)));
  private readonly wanted = computed(() =>
    this.beats()
      .slice(this.from() - 1)
      .filter((_, i) => i % this.every() === 0)
      .map((at) => toFrameGrid(Math.round(at), this.rate())),
  );
  /** Those of them that have no cue yet. */
  protected readonly fresh = computed(() => {
    const taken = new Set(this.cues().map(({ at }) => at));
    return [...new Set(this.wanted())].filter((at) => !taken.has(at));
  });
  protected readonly about = computed(() => {
    const state = this.state();
    if (state === 'loading') return 'listening…';
    if ('problem' in state) return `The sound cannot be heard: ${state.problem}.`;
    if (!state.beats) return 'None are heard: the sound has no even beat, or is too short.';
    return `${this.beats().length} in the scene, about ${state.beats.perMinute.toFixed(1)} a minute`;
  });

  protected readonly check = (text: string): string | null => {
    const entry = parseTimeEntry(text, this.rate());
    return entry.ok ? null : describeEntryProblem(entry.problem, this.rate());
  };

  protected text(at: Ticks): string {
    return formatShort(at, this.rate());
  }

  protected value(event: Event): string {
    return (event.target as HTMLSelectElement).value;
  }

  protected setStart(text: string): void {
    const { span } = this.layer();
    const at = Math.max(0, this.entered(text, span.in));
    this.set('Move', { span: { in: at, out: at + span.out - span.in } });
  }

  protected setFrom(text: string): void {
    const { length } = this.source();
    const from = Math.min(length - 1, Math.max(0, this.entered(text, this.source().from)));
    const { span } = this.layer();
    this.set('Trim', {
      source: { ...this.source(), from },
      span: { in: span.in, out: Math.min(span.out, span.in + length - from) },
    });
  }

  protected setLength(text: string): void {
    const { span } = this.layer();
    const { from, length } = this.source();
    const lasts = Math.min(length - from, Math.max(1, this.entered(text, span.out - span.in)));
    this.set('Trim', { span: { in: span.in, out: span.in + lasts } });
  }

  protected setGain(percent: number): void {
    this.set('Set the loudness of', { source: { ...this.source(), gain: percent / 100 } });
  }

  protected addBeats(): void {
    const cues = addCues(this.cues(), this.fresh(), newId, 'Beat');
    const sorted = [...cues].sort((a, b) => a.at - b.at);
    this.step.emit({
      label: `Add ${counted(cues.length - this.cues().length, 'cue')} on beats`,
      edits: [{ type: 'set-scene', fields: { cues: sorted } }],
    });
  }

  private entered(text: string, before: Ticks): Ticks {
    const entry = parseTimeEntry(text, this.rate());
    return entry.ok ? applyTimeEntry(entry.entry, before) : before;
  }

  private set(verb: string, fields: Partial<Pick<Layer, 'span' | 'source'>>): void {
    const { id, name } = this.layer();
    this.step.emit({ label: `${verb} “${name}”`, edits: [{ type: 'set-layer', layer: id, fields }] });
  }
}
