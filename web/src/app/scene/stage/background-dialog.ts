import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { firstColour, oklabFromCss, type Scene } from '@wexikine/core';
import { ColourSwatch } from '../../fields/colour-swatch';

/** What a frame is filled with behind all layers; null is nothing. */
export type Background = NonNullable<Scene['background']> | null;

/** What the dialog gives back: the background that was chosen. */
export interface BackgroundAnswer {
  readonly background: Background;
}

/** Asks what the frame is filled with behind all layers. */
@Component({
  selector: 'wx-background-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ColourSwatch, MatDialogModule],
  template: `
    <h2 mat-dialog-title>Background of the frame</h2>
    <mat-dialog-content>
      <div class="ways" role="radiogroup" aria-label="Background">
        @for (one of ways; track one.way) {
          <label class="choice"
            ><input type="radio" name="way" [checked]="way() === one.way" (change)="way.set(one.way)" /><span>{{
              one.label
            }}</span></label
          >
        }
      </div>
      @if (way() !== 'none') {
        <div class="fields">
          <label class="field-label"
            >{{ way() === 'gradient' ? 'From' : 'Colour' }}
            <input class="text-field mono" [value]="from()" (input)="from.set(text($event))"
          /></label>
          <wx-colour-swatch label="Colour, picked" [value]="from()" (changed)="from.set($event)" />
          @if (way() === 'gradient') {
            <label class="field-label"
              >To <input class="text-field mono" [value]="to()" (input)="to.set(text($event))"
            /></label>
            <wx-colour-swatch label="To, picked" [value]="to()" (changed)="to.set($event)" />
            <label class="field-label"
              >Angle
              <input class="text-field mono" inputmode="numeric" [value]="angle()" (input)="angle.set(+text($event))"
            /></label>
          }
        </div>
      }
      @if (problem(); as sentence) {
        <p class="problem" role="alert">{{ sentence }}</p>
      }
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button class="wx-button quiet" type="button" mat-dialog-close>Cancel</button>
      <button class="wx-button main" type="button" [disabled]="problem() !== null" (click)="close()">
        Set the background
      </button>
    </mat-dialog-actions>
  `,
  styles: `
    .ways {
      display: flex;
      gap: 16px;
      margin-bottom: 12px;
    }
    .fields {
      display: grid;
      grid-template-columns: 1fr 32px 1fr 32px 80px;
      gap: 8px;
      align-items: end;
    }
  `,
})
export class BackgroundDialog {
  private readonly reference = inject<MatDialogRef<BackgroundDialog, BackgroundAnswer>>(MatDialogRef);
  private readonly before = inject<Background>(MAT_DIALOG_DATA);
  protected readonly ways = [
    { way: 'none', label: 'nothing, transparent' },
    { way: 'colour', label: 'one colour' },
    { way: 'gradient', label: 'a gradient' },
  ] as const;
  private readonly across =
    this.before !== null && typeof this.before === 'object' && 'from' in this.before ? this.before : null;
  protected readonly way = signal<'none' | 'colour' | 'gradient'>(
    this.before === null ? 'none' : this.across ? 'gradient' : 'colour',
  );
  protected readonly from = signal(this.before === null ? '#0a0f2c' : (firstColour(this.before) ?? '#0a0f2c'));
  protected readonly to = signal(this.across?.to ?? '#26456b');
  protected readonly angle = signal(this.across?.angle ?? 0);
  protected readonly problem = computed(() => {
    if (this.way() === 'none') return null;
    const colours = this.way() === 'gradient' ? [this.from(), this.to()] : [this.from()];
    const wrong = colours.find((one) => oklabFromCss(one.trim()) === null);
    if (wrong !== undefined) return `“${wrong.slice(0, 30)}” is not a colour. Write one such as #0a0f2c.`;
    return Math.abs(this.angle()) <= 360 ? null : 'Write an angle from −360 to 360.';
  });

  protected text(event: Event): string {
    return (event.target as HTMLInputElement).value;
  }

  protected close(): void {
    const [from, to] = [this.from().trim(), this.to().trim()];
    const way = this.way();
    const background = way === 'none' ? null : way === 'colour' ? from : { from, to, angle: this.angle() };
    this.reference.close({ background });
  }
}
