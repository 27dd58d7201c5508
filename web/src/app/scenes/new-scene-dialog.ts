import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { FormBuilder, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import {
  describeEntryProblem,
  formatRate,
  frameTicks,
  LISTED_RATES,
  parseTimeEntry,
  SCENE_FORMAT,
  type Rate,
  type Scene,
} from '@wexikine/core';
import { map, startWith } from 'rxjs';
import { numberCheck } from '../fields/checks';
import { enter } from '../fields/entry';

const SIZES = [
  { label: '1920 × 1080, wide', width: 1920, height: 1080 },
  { label: '3840 × 2160, wide', width: 3840, height: 2160 },
  { label: '1080 × 1920, tall', width: 1080, height: 1920 },
  { label: '1080 × 1080, square', width: 1080, height: 1080 },
] as const;

const SIDES = ['width', 'height'] as const;
type Side = (typeof SIDES)[number];
const sideCheck = numberCheck(16, 16_384);

const FIRST_RATE = LISTED_RATES.findIndex(({ num, den }) => num === 25 && den === 1);

/** Asks for a new scene's name, size, rate and length; closes with a scene without layers. */
@Component({
  selector: 'wx-new-scene-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatDialogModule, ReactiveFormsModule],
  template: `
    <h2 mat-dialog-title>New scene</h2>
    <form [formGroup]="form" (ngSubmit)="create()">
      <mat-dialog-content>
        <label class="field-label"
          >Name <input class="text-field" formControlName="name" cdkFocusInitial (focus)="$any($event.target).select()"
        /></label>
        <label class="field-label">Project <input class="text-field" formControlName="project" /></label>
        <div class="row">
          <label class="field-label"
            >Size
            <select class="text-field" formControlName="size" (change)="takeSize()">
              @for (size of sizes; track size.label; let i = $index) {
                <option [ngValue]="i">{{ size.label }}</option>
              }
              <option [ngValue]="-1">another size</option>
            </select>
          </label>
          <label class="field-label"
            >Width <input class="text-field mono" formControlName="width" (change)="workOut('width')"
          /></label>
          <label class="field-label"
            >Height <input class="text-field mono" formControlName="height" (change)="workOut('height')"
          /></label>
        </div>
        <div class="row two">
          <label class="field-label"
            >Frames per second
            <select class="text-field mono" formControlName="rate">
              @for (rate of rates; track $index) {
                <option [ngValue]="$index">{{ rate }}</option>
              }
            </select>
          </label>
          <label class="field-label">Length <input class="text-field mono" formControlName="length" /></label>
        </div>
        <p class="problem" role="alert">{{ problem() ?? '' }}</p>
      </mat-dialog-content>
      <mat-dialog-actions align="end">
        <button class="wx-button quiet" type="button" mat-dialog-close>Cancel</button>
        <button class="wx-button main" type="submit" [disabled]="problem() !== null">Create scene</button>
      </mat-dialog-actions>
    </form>
  `,
  styles: `
    mat-dialog-content {
      display: grid;
      gap: 14px;
    }
    .row {
      display: grid;
      grid-template-columns: 1.6fr 1fr 1fr;
      gap: 10px;
    }
    .two {
      grid-template-columns: 1fr 1fr;
    }
    .problem {
      min-height: 20px;
    }
  `,
})
export class NewSceneDialog {
  private readonly reference = inject(MatDialogRef<NewSceneDialog, Omit<Scene, 'id'>>);
  protected readonly sizes = SIZES;
  protected readonly rates = LISTED_RATES.map(formatRate);
  protected readonly form = inject(FormBuilder).nonNullable.group({
    name: ['Untitled scene', [Validators.required, Validators.maxLength(200)]],
    project: ['', Validators.maxLength(200)],
    size: [0],
    width: ['1920'],
    height: ['1080'],
    rate: [FIRST_RATE],
    length: ['6:00'],
  });
  /** What an entry such as +40 or ×2 is relative to: the sides as they were when one was last left. */
  private readonly standing: Record<Side, string> = { width: '1920', height: '1080' };
  protected readonly problem = toSignal(
    this.form.valueChanges.pipe(
      startWith(null),
      map(() => this.findProblem()),
    ),
    { requireSync: true },
  );

  protected takeSize(): void {
    const size = SIZES[this.form.getRawValue().size];
    if (!size) return;
    for (const side of SIDES) this.stand(side, String(size[side]));
  }

  /** Puts what an entry comes to in its place, once the field is left. */
  protected workOut(side: Side): void {
    const pixels = this.pixels(side);
    if (pixels !== null) this.stand(side, String(pixels));
  }

  private stand(side: Side, text: string): void {
    this.standing[side] = text;
    this.form.patchValue({ [side]: text });
  }

  /** A side in whole pixels; null for what is no such number. */
  private pixels(side: Side): number | null {
    const entered = enter(this.form.getRawValue()[side], this.standing[side], this.rate);
    const text = entered?.ok === true ? entered.text : null;
    return text === null || sideCheck(text) !== null || !Number.isInteger(Number(text)) ? null : Number(text);
  }

  protected create(): void {
    const { name, project, length } = this.form.getRawValue();
    const [width, height] = SIDES.map((side) => this.pixels(side));
    const entry = parseTimeEntry(length, this.rate);
    if (!entry.ok || width === null || height === null || this.findProblem() !== null) return;
    this.reference.close({
      format: SCENE_FORMAT,
      name: name.trim(),
      project: project.trim(),
      width,
      height,
      rate: this.rate,
      length: entry.entry.ticks,
      cues: [],
      layers: [],
      runs: [],
    });
  }

  private get rate(): Rate {
    return LISTED_RATES[this.form.getRawValue().rate];
  }

  private findProblem(): string | null {
    const { name, project } = this.form.controls;
    if (name.value.trim() === '' || name.invalid) return 'Give the scene a name of up to 200 characters.';
    if (project.invalid) return 'A project’s name has at most 200 characters.';
    if (SIDES.some((side) => this.pixels(side) === null)) return 'Width and height are whole pixels from 16 to 16384.';
    const entry = parseTimeEntry(this.form.getRawValue().length, this.rate);
    if (!entry.ok) return `Length: ${describeEntryProblem(entry.problem, this.rate)}`;
    return entry.entry.ticks < frameTicks(this.rate) ? 'A scene lasts at least one frame.' : null;
  }
}
