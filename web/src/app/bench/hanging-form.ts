import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { HANGS, PHASES, type Hang, type Phase, type Preset } from '@wexikine/core';
import type { PresetChange } from './parameter-table';

const HANG_WORDS: Readonly<Record<Hang, string>> = {
  in: 'from the layer’s in point',
  out: 'to its out point',
  time: 'at a time of the scene',
  span: 'across the whole layer',
};
/** Where a phase starts at first. */
const HANG_OF: Readonly<Record<Phase, Hang>> = { entrance: 'in', exit: 'out', accent: 'time', throughout: 'span' };

/** A preset of another phase: it starts where that does, and matches no other preset any more. */
export function inPhase({ matches: _matches, ...preset }: Preset, phase: Phase): Preset {
  return { ...preset, phase, hang: HANG_OF[phase] };
}

/** When a preset starts, what phase it is, and what happens when its layer is made longer. */
@Component({
  selector: 'wx-hanging-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>When it starts</h2>
    <div class="chips" role="group" aria-label="When it starts">
      @for (hang of hangs; track hang) {
        <button
          class="chip"
          type="button"
          [class.on]="preset().hang === hang"
          [attr.aria-pressed]="preset().hang === hang"
          (click)="set('Change when it starts', { hang })"
        >
          {{ words[hang] }}
        </button>
      }
    </div>
    <p>
      It is an
      <select class="inline" aria-label="Phase" (change)="setPhase($any($event.target).value)">
        @for (phase of phases; track phase) {
          <option [value]="phase" [selected]="phase === preset().phase">{{ phase }}</option>
        }</select
      >. When its layer is made longer, this part
      <select
        class="inline"
        aria-label="When its layer is made longer"
        (change)="set('When it is stretched', { stretch: $any($event.target).value })"
      >
        <option value="keep" [selected]="preset().stretch === 'keep'">keeps its length</option>
        <option value="scale" [selected]="preset().stretch === 'scale'">scales with it</option></select
      >. Moments land on
      <select
        class="inline"
        aria-label="Moments land on"
        (change)="set('Where moments land', { grid: $any($event.target).value })"
      >
        <option value="frames" [selected]="preset().grid === 'frames'">whole frames</option>
        <option value="exact" [selected]="preset().grid === 'exact'">exact times</option></select
      >.
    </p>
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }

    h2 {
      font: 600 13px/1.5 var(--font-text);
      color: var(--ink-soft);
    }

    p {
      color: var(--ink-soft);
      line-height: 2;
    }

    .chips {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
    }
  `,
  host: { role: 'region', 'aria-label': 'When it starts' },
})
export class HangingForm {
  readonly preset = input.required<Preset>();
  readonly changed = output<PresetChange>();
  protected readonly hangs = HANGS;
  protected readonly phases = PHASES;
  protected readonly words = HANG_WORDS;

  protected set(label: string, fields: Partial<Preset>): void {
    this.changed.emit({ label, preset: { ...this.preset(), ...fields } });
  }

  protected setPhase(phase: Phase): void {
    this.changed.emit({
      label: phase === 'throughout' ? 'Make it play throughout' : `Make it an ${phase}`,
      preset: inPhase(this.preset(), phase),
    });
  }
}
