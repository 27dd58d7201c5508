import { ChangeDetectionStrategy, Component } from '@angular/core';
import { ColourSwatch } from '../fields/colour-swatch';
import { LookPart } from './look-part';
import { common } from './looks';

const ENDS = [
  { part: 'dark', label: 'Dark colour' },
  { part: 'light', label: 'Light colour' },
] as const;
type End = (typeof ENDS)[number];

/** The two colours that layers are drawn in. */
@Component({
  selector: 'wx-look-two',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ColourSwatch],
  styleUrl: './look.scss',
  // Its fields stand in the grid of the effect.
  host: { style: 'display: contents' },
  template: `
    @for (end of ends; track end.part) {
      <div class="colour pair" role="group" [attr.aria-label]="end.label">
        <label class="field-label">
          {{ end.label }}
          <input
            class="text-field mono"
            placeholder="mixed"
            [value]="colourOf(end)"
            (change)="set(end, valueOf($event))"
          />
        </label>
        <wx-colour-swatch [label]="end.label + ' picked'" [value]="colourOf(end)" (changed)="set(end, $event)" />
      </div>
    }
    @if (problem(); as text) {
      <p class="problem text" role="alert">{{ text }}</p>
    }
  `,
})
export class LookTwo extends LookPart {
  protected readonly ends = ENDS;

  protected colourOf({ part }: End): string {
    return common(this.layers(), ({ look }) => look.two?.[part]) ?? '';
  }

  protected set({ part, label }: End, text: string): void {
    if (!this.isColour(text)) return;
    if (text.trim() === 'none') return this.problem.set('Take both away with the cross beside them.');
    this.setLooks(`Set the ${label.toLowerCase()}`, this.layers(), ({ two }) => ({
      two: two && { ...two, [part]: text.trim() },
    }));
  }
}
