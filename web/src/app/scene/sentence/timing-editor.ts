import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { formatShort, frameTicks, parseTimeEntry, type Rate, type Recipe, type Scene } from '@wexikine/core';
import { timeCheck } from '../../fields/checks';
import { ValueField } from '../../fields/value-field';
import { ChoiceEditor } from './choice-editor';
import type { Choice } from './choices';

type Field = 'start' | 'spacing' | 'length';

const LABELS: Readonly<Record<Field, string>> = {
  start: 'Where it begins',
  spacing: 'How they are spaced',
  length: 'How long each lasts',
};

function choicesOf(field: Field, isExit: boolean): readonly Choice[] {
  switch (field) {
    case 'start':
      return [
        {
          value: 'layer',
          label: isExit ? 'At each out point' : 'At each in point',
          note: isExit ? 'the last one ends there' : 'later ones wait their turn',
        },
        { value: 'time', label: 'At a time of the scene', note: '' },
      ];
    case 'spacing':
      return [
        { value: 'gap', label: 'One every …', note: 'a gap from start to start' },
        { value: 'total', label: 'All begun within …', note: 'the starts spread evenly' },
      ];
    case 'length':
      return [
        { value: 'preset', label: 'As made', note: 'the preset’s own length' },
        { value: 'fixed', label: 'A fixed length', note: '' },
        { value: 'factor', label: 'Times a factor', note: '' },
      ];
  }
}

/** The nearest frame, said where the typed time falls between two. */
function roundingHint(text: string, rate: Rate): string | null {
  const result = parseTimeEntry(text, rate);
  if (!result.ok || result.entry.rounding === 0) return null;
  const off = Number((result.entry.rounding / frameTicks(rate)).toFixed(2));
  return `Nearest frame ${result.entry.frame}; this is ${Math.abs(off)} f ${off > 0 ? 'after' : 'before'} it.`;
}

const SOME_FACTOR = 1.5;

/** Start, spacing and length: a way, and the time that goes with it. */
@Component({
  selector: 'wx-timing-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ChoiceEditor, ValueField],
  template: `
    <wx-choice-editor [label]="label()" [choices]="choices()" [value]="way()" (chosen)="choose($event)" />
    @if (text() !== null) {
      <wx-value-field
        [label]="way() === 'factor' ? 'Factor' : 'Time'"
        [value]="text() ?? ''"
        [rate]="scene().rate"
        [least]="0"
        [check]="check()"
        [hint]="hint()"
        (changed)="give($event)"
      />
    }
    @if (field() === 'start' && way() === 'time') {
      <button class="wx-button" type="button" (click)="give(playheadText())">
        At the playhead, {{ playheadText() }}
      </button>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 10px;
      width: 250px;
    }
  `,
})
export class TimingEditor {
  readonly field = input.required<Field>();
  readonly recipe = input.required<Recipe>();
  readonly scene = input.required<Scene>();
  readonly playhead = input.required<number>();
  readonly changed = output<Recipe>();

  protected readonly label = computed(() => LABELS[this.field()]);
  protected readonly choices = computed(() => choicesOf(this.field(), this.recipe().operation === 'send-out'));
  protected readonly way = computed(() => this.recipe()[this.field()].by);
  protected readonly playheadText = computed(() => formatShort(this.playhead(), this.scene().rate));

  protected readonly text = computed(() => {
    const { start, spacing, length } = this.recipe();
    switch (this.field()) {
      case 'start':
        return start.by === 'time' ? start.at : null;
      case 'spacing':
        return spacing.by === 'gap' ? spacing.gap : spacing.total;
      case 'length':
        return length.by === 'fixed' ? length.length : length.by === 'factor' ? String(length.factor) : null;
    }
  });

  protected readonly hint = computed(() => {
    const text = this.text();
    return text === null || this.way() === 'factor' ? null : roundingHint(text, this.scene().rate);
  });

  protected readonly check = computed(() => {
    const { rate } = this.scene();
    if (this.way() === 'factor') {
      return (text: string) =>
        Number(text) > 0 && Number(text) <= 1000 ? null : 'Give a number above 0, such as 0.5 or 2.';
    }
    return timeCheck(rate, this.field() === 'length' ? frameTicks(rate) : 0);
  });

  protected choose(way: string): void {
    const recipe = this.recipe();
    switch (this.field()) {
      case 'start':
        return this.changed.emit({
          ...recipe,
          start: way === 'time' ? { by: 'time', at: this.playheadText() } : { by: 'layer' },
        });
      case 'spacing':
        return this.changed.emit({
          ...recipe,
          spacing: way === 'gap' ? { by: 'gap', gap: '4f' } : { by: 'total', total: '1s' },
        });
      case 'length':
        if (way === 'fixed') return this.changed.emit({ ...recipe, length: { by: 'fixed', length: '20f' } });
        if (way === 'factor') return this.changed.emit({ ...recipe, length: { by: 'factor', factor: SOME_FACTOR } });
        return this.changed.emit({ ...recipe, length: { by: 'preset' } });
    }
  }

  protected give(text: string): void {
    const recipe = this.recipe();
    switch (this.field()) {
      case 'start':
        return this.changed.emit({ ...recipe, start: { by: 'time', at: text } });
      case 'spacing':
        return this.changed.emit({
          ...recipe,
          spacing: this.way() === 'gap' ? { by: 'gap', gap: text } : { by: 'total', total: text },
        });
      case 'length':
        return this.changed.emit({
          ...recipe,
          length: this.way() === 'factor' ? { by: 'factor', factor: Number(text) } : { by: 'fixed', length: text },
        });
    }
  }
}
