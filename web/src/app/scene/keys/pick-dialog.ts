import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { countPicks, describeFinding, pickByRule, type HandPicks, type KeyRule, type Scene } from '@wexikine/core';
import { KeyRuleForm } from '../sentence/key-rule-form';

/** What keys are picked among. */
export interface PickSource {
  readonly scene: Scene;
  readonly layers: ReadonlySet<string>;
}

/** Asks for a rule and closes with the keys that it means; how many these are is told meanwhile. */
@Component({
  selector: 'wx-pick-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [KeyRuleForm, MatDialogModule],
  template: `
    <h2 mat-dialog-title>Pick keys by a rule</h2>
    <mat-dialog-content>
      <p class="quiet-text">Whatever is chosen must hold together, among the layers that are shown.</p>
      <wx-key-rule-form [rule]="rule()" [scene]="source.scene" (changed)="set($event)" />
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      @if (problem(); as text) {
        <span class="problem" role="alert">{{ text }}</span>
      }
      <button class="wx-button quiet" type="button" mat-dialog-close>Cancel</button>
      <button class="wx-button main" type="button" [disabled]="count() === 0" (click)="pick()">
        {{ count() === 1 ? 'Pick 1 key' : 'Pick ' + count() + ' keys' }}
      </button>
    </mat-dialog-actions>
  `,
  styles: `
    .quiet-text {
      margin-bottom: 10px;
    }
  `,
})
export class PickDialog {
  private readonly reference = inject(MatDialogRef<PickDialog, HandPicks>);
  protected readonly source = inject<PickSource>(MAT_DIALOG_DATA);
  protected readonly rule = signal<KeyRule>({ which: 'all' });
  private readonly found = computed(() => pickByRule(this.source.scene, this.rule(), this.source.layers));
  protected readonly count = computed(() => countPicks(this.found().picks));
  protected readonly problem = computed(() => {
    const [first] = this.found().problems;
    return first ? describeFinding(first, this.source.scene) : null;
  });

  protected set(rule: Partial<KeyRule>): void {
    this.rule.set({ which: 'all', ...rule });
  }

  protected pick(): void {
    this.reference.close(this.found().picks);
  }
}
