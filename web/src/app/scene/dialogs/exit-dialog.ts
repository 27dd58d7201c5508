import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import {
  formatShort,
  isPreset,
  matchingExitRecipe,
  type PresetRecipe,
  type RunRecord,
  type Scene,
  type Shelf,
} from '@wexikine/core';
import { timeCheck } from '../../fields/checks';
import { ValueField } from '../../fields/value-field';

/** The entrance that an exit is made for. */
export interface ExitSource {
  readonly run: RunRecord;
  readonly scene: Scene;
  readonly shelf: Shelf;
}

/** Asks how the exit of an entrance run is to be; closes with its recipe. */
@Component({
  selector: 'wx-exit-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatDialogModule, ValueField],
  template: `
    <h2 mat-dialog-title>The matching exit</h2>
    <mat-dialog-content>
      <label class="field-label"
        >Preset
        <select class="text-field" (change)="preset.set(read($event))">
          <option value="">{{ standard() }}</option>
          @for (item of exits; track item.id) {
            <option [value]="item.id" [selected]="item.id === preset()">{{ item.name }}</option>
          }
        </select>
      </label>
      <fieldset>
        <legend>In which order</legend>
        <label class="choice"
          ><input type="radio" name="order" [checked]="order() === 'same'" (change)="order.set('same')" /><span
            >The same<small>who came first leaves first</small></span
          ></label
        >
        <label class="choice"
          ><input type="radio" name="order" [checked]="order() === 'reversed'" (change)="order.set('reversed')" /><span
            >Reversed<small>who came last leaves first</small></span
          ></label
        >
      </fieldset>
      <fieldset>
        <legend>When</legend>
        <label class="choice"
          ><input type="radio" name="when" [checked]="!isAtTime()" (change)="isAtTime.set(false)" /><span
            >At each out point<small>the last one is gone there</small></span
          ></label
        >
        <label class="choice"
          ><input type="radio" name="when" [checked]="isAtTime()" (change)="isAtTime.set(true)" /><span
            >All gone at one time</span
          ></label
        >
        @if (isAtTime()) {
          <wx-value-field
            label="All gone at"
            [value]="finish()"
            [rate]="data.scene.rate"
            [least]="0"
            [check]="check"
            (changed)="finish.set($event)"
          />
        }
      </fieldset>
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button class="wx-button quiet" type="button" mat-dialog-close>Cancel</button>
      <button class="wx-button main" type="button" (click)="make()">Show it as a dry run</button>
    </mat-dialog-actions>
  `,
  styles: `
    mat-dialog-content {
      display: grid;
      gap: 14px;
    }
    fieldset {
      border: 0;
      margin: 0;
      padding: 0;
    }
    legend {
      padding: 0 0 4px;
      font-weight: 600;
    }
  `,
})
export class ExitDialog {
  protected readonly data = inject<ExitSource>(MAT_DIALOG_DATA);
  private readonly ref = inject<MatDialogRef<ExitDialog, PresetRecipe>>(MatDialogRef);
  protected readonly exits = [...this.data.shelf.items.values()]
    .filter(isPreset)
    .filter(({ body, state }) => body.phase === 'exit' && state === 'published')
    .sort((a, b) => a.name.localeCompare(b.name, 'en'));
  protected readonly preset = signal('');
  protected readonly order = signal<'same' | 'reversed'>('same');
  protected readonly isAtTime = signal(false);
  protected readonly finish = signal(formatShort(this.data.scene.length, this.data.scene.rate));
  protected readonly check = timeCheck(this.data.scene.rate);

  protected readonly standard = computed(() => {
    const recipe = matchingExitRecipe(this.data.run, this.data.shelf, { order: 'same', finish: null });
    const name = this.data.shelf.preset(recipe?.preset.id ?? '')?.name ?? this.data.run.preset?.name ?? '';
    return recipe?.preset.mirrored === true ? `${name}, mirrored in time` : `${name}, which matches it`;
  });

  protected read(event: Event): string {
    return (event.target as HTMLSelectElement).value;
  }

  protected make(): void {
    const { run, shelf } = this.data;
    const recipe = matchingExitRecipe(run, shelf, {
      order: this.order(),
      finish: this.isAtTime() ? this.finish() : null,
      ...(this.preset() === '' ? {} : { preset: this.preset() }),
    });
    this.ref.close(recipe ?? undefined);
  }
}
