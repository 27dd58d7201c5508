import { ChangeDetectionStrategy, Component, computed, DestroyRef, effect, inject, untracked } from '@angular/core';
import type { CutOutBy } from '@wexikine/core';
import { ColourSwatch } from '../fields/colour-swatch';
import { PainterService } from '../drawing/painter.service';
import { CutOutView } from './cut-out-view';
import { LookPart } from './look-part';
import { common } from './looks';

const WAYS: Readonly<Record<CutOutBy['by'], string>> = {
  colour: 'a colour',
  dark: 'what is dark',
  light: 'what is light',
};
/** A colour to begin with where the picture says none. */
const GREEN = '#00b140';

/** What is taken out of pictures: which way, the colour, picked on the picture, and a view of what is kept. */
@Component({
  selector: 'wx-look-cutout',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ColourSwatch],
  template: `
    <label class="field-label"
      >Takes out
      <select class="text-field" (change)="setWay($any(valueOf($event)))">
        @if (way() === null) {
          <option value="" selected disabled>mixed</option>
        }
        @for (one of ways; track one) {
          <option [value]="one" [selected]="one === way()">{{ words[one] }}</option>
        }
      </select>
    </label>
    @if (way() === 'colour') {
      <div class="colour" role="group" aria-label="Cut-out, colour">
        <label class="field-label"
          >Colour
          <input
            class="text-field mono"
            placeholder="mixed"
            [value]="colour() ?? ''"
            (change)="setColour(valueOf($event))"
        /></label>
        <wx-colour-swatch label="Cut-out, colour picked" [value]="colour()" (changed)="setColour($event)" />
      </div>
    }
    @if (only(); as layer) {
      <div class="wide">
        @if (way() === 'colour') {
          <button class="wx-button quiet" type="button" (click)="pick(layer.id)">Pick on the picture</button>
        }
        <button
          class="wx-button quiet"
          type="button"
          [attr.aria-pressed]="view.kept() === layer.id"
          (click)="view.kept.set(view.kept() === layer.id ? null : layer.id)"
        >
          {{ view.kept() === layer.id ? 'Show the picture' : 'Show what is kept' }}
        </button>
      </div>
    }
    @if (problem(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
  `,
  styleUrl: './look.scss',
  styles: `
    :host {
      display: contents;
    }
    .wide {
      display: flex;
      grid-column: 1 / -1;
      gap: 4px;
      margin-left: -8px;
    }
  `,
})
export class LookCutout extends LookPart {
  protected readonly view = inject(CutOutView);
  private readonly painter = inject(PainterService);
  protected readonly words = WAYS;
  protected readonly ways = Object.keys(WAYS) as CutOutBy['by'][];
  protected readonly way = computed(() => common(this.layers(), ({ look }) => look.cutout?.by) ?? null);
  protected readonly colour = computed(() =>
    common(this.layers(), ({ look }) => (look.cutout?.by === 'colour' ? look.cutout.colour : null)),
  );
  protected readonly only = computed(() => (this.layers().length === 1 ? this.layers()[0] : null));

  constructor() {
    super();
    // Another layer is shown as it is.
    effect(() => {
      const id = this.only()?.id ?? null;
      if (untracked(this.view.kept) !== id) this.view.kept.set(null);
    });
    inject(DestroyRef).onDestroy(() => {
      this.view.kept.set(null);
      this.view.picking.set(null);
    });
  }

  protected setWay(by: CutOutBy['by']): void {
    const [first] = this.layers();
    const found = first.source.type === 'picture' ? this.painter.edgeColourOf(first.source.href) : null;
    const cutout: CutOutBy = by === 'colour' ? { by, colour: found ?? GREEN } : { by };
    this.setLooks('Set the cut-out', this.layers(), () => ({ cutout }));
  }

  protected setColour(text: string): void {
    if (!this.isColour(text)) return;
    if (text.trim() === 'none') return this.problem.set('Take the cut-out away with the cross beside it.');
    this.setLooks('Set the colour of the cut-out', this.layers(), () => ({
      cutout: { by: 'colour', colour: text.trim() },
    }));
  }

  protected pick(layer: string): void {
    this.view.picking.set({ layer, take: (colour) => this.setColour(colour) });
  }
}
