import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { FontAxis, Layer } from '@wexikine/core';
import { enterMany } from '../../../fields/many-entry';
import { LookPart } from '../../../looks/look-part';
import { common, wordEdits, type WordSource } from '../../../looks/looks';

function standsAt({ source }: Layer, { tag, usual }: FontAxis): number {
  return (source as WordSource).axes?.[tag] ?? usual;
}

/** Where words in a font of one's own stand on its axes besides the weight. */
@Component({
  selector: 'wx-look-axes',
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: '../../../looks/look.scss',
  template: `
    @if (axes().length > 0) {
      <div class="words">
        @for (axis of axes(); track axis.tag) {
          <label class="field-label" [title]="'From ' + axis.least + ' to ' + axis.most + ', usually ' + axis.usual">
            {{ axis.name }}
            <input class="text-field mono" placeholder="mixed" [value]="textOf(axis)" (change)="set(axis, $event)" />
          </label>
        }
      </div>
    }
    @if (problem(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
  `,
})
export class LookAxes extends LookPart {
  /** Axes of the one font that all of the layers are set in. */
  readonly axes = input.required<readonly FontAxis[]>();

  protected textOf(axis: FontAxis): string {
    return String(common(this.layers(), (layer) => standsAt(layer, axis)) ?? '');
  }

  protected set(axis: FontAxis, event: Event): void {
    const change = enterMany(this.valueOf(event));
    const { name, tag, least, usual, most } = axis;
    if (!change) return this.problem.set(`Write a number from ${least} to ${most}, or +5 to change each.`);
    const edits = this.layers().flatMap((layer) => {
      const value = Math.min(most, Math.max(least, Math.round(change(standsAt(layer, axis)) * 1_000) / 1_000));
      const { [tag]: _before, ...others } = (layer.source as WordSource).axes ?? {};
      const axes = value === usual ? others : { ...others, [tag]: value };
      return wordEdits([layer], { axes: Object.keys(axes).length > 0 ? axes : undefined });
    });
    this.do(`Set the ${name.toLowerCase()} of the letters`, edits);
  }
}
