import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output, signal } from '@angular/core';
import { compileRig, figuresWords, rigFigures, solveDial, type Rig, type Shelf } from '@wexikine/core';
import type { RigChange } from './rig-change';

/** What a rig does in figures, and a dial set by what one wants to see. */
@Component({
  selector: 'wx-rig-effect',
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './rig-effect.html',
  styleUrl: './rig-effect.scss',
})
export class RigEffect {
  readonly rig = input.required<Rig>();
  readonly shelf = input.required<Shelf>();
  readonly changed = output<RigChange>();

  private readonly figuresNow = computed(() => {
    const isAnswering = /\b(arrival|chase)\b/.test(
      this.rig()
        .formulas.map(({ text }) => text)
        .join('\n'),
    );
    return isAnswering && compileRig(this.rig()).problems.length === 0 ? rigFigures(this.rig(), this.shelf()) : null;
  });
  protected readonly figures = computed(() => {
    const figures = this.figuresNow();
    return figures ? figuresWords(figures) : [];
  });
  protected readonly wished = signal<'passes' | 'settles'>('passes');
  protected readonly wishDial = linkedSignal(() => this.rig().dials[0]?.name ?? '');
  protected readonly wishProblem = signal<string | null>(null);

  /** Sets a dial by what one wants to see of the rig. */
  protected setByWish(text: string): void {
    const number = Number(text.replace(',', '.'));
    if (text.trim() === '' || !Number.isFinite(number) || number < 0) {
      return this.wishProblem.set('Write a number, such as 12.');
    }
    const figure = this.wished();
    const value = figure === 'passes' ? number / 100 : number;
    const solved = solveDial(this.rig(), this.shelf(), this.wishDial(), { figure, value });
    const dial = this.rig().dials.find(({ name }) => name === this.wishDial());
    if (solved === null || !dial) {
      return this.wishProblem.set(
        `${dial?.label ?? 'This dial'} cannot do that between its soft limits. Try another dial.`,
      );
    }
    this.wishProblem.set(null);
    const dials = this.rig().dials.map((one) => (one === dial ? { ...one, default: solved } : one));
    this.changed.emit({ label: `Set ${dial.label} by what it does`, rig: { ...this.rig(), dials } });
  }
}
