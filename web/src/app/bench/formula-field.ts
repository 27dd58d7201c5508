import {
  ChangeDetectionStrategy,
  ChangeDetectorRef,
  Component,
  ElementRef,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import type { Completion } from './completions';
import { FormulaEditor, type EditEnd } from './formula-editor';
import { FormulaText } from './formula-text';

/** A formula with its label: shown until it is pressed, then typed; what is wrong with it stands below. */
@Component({
  selector: 'wx-formula-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [FormulaEditor, FormulaText],
  template: `
    <span class="label" [title]="note()">{{ label() }}</span>
    <div
      class="cell"
      role="button"
      [attr.tabindex]="isOpen() ? -1 : 0"
      [attr.aria-label]="isOpen() ? null : name() + ': ' + text()"
      [class.editing]="isOpen()"
      [class.wrong]="problem()"
      (click)="open()"
      (keydown)="key($event)"
    >
      @if (isOpen()) {
        <wx-formula-editor
          [text]="typed() ?? text()"
          [label]="name()"
          [completions]="completions()"
          (changed)="changed.emit($event)"
          (ended)="end($event)"
        />
      } @else {
        <wx-formula-text [text]="text()" />
      }
    </div>
    @if (problem(); as message) {
      <small role="alert">{{ message }}</small>
    }
  `,
  styleUrl: './formula-field.scss',
})
export class FormulaField {
  readonly text = input.required<string>();
  readonly label = input.required<string>();
  /** What it is called where its label alone does not say. */
  readonly name = input.required<string>();
  readonly note = input('');
  readonly completions = input.required<readonly Completion[]>();
  readonly problem = input<string | null>(null);
  readonly changed = output<string>();
  /** Editing ended with the wish to go on to a neighbour. */
  readonly left = output<'next' | 'previous'>();

  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly detector = inject(ChangeDetectorRef);
  protected readonly isOpen = signal(false);
  /** What was typed to open it, until that is its text. */
  protected readonly typed = signal<string | null>(null);
  private before = '';

  /** The editor is there, and has the focus, before the next key comes. */
  protected open(typed: string | null = null): void {
    if (this.isOpen()) return;
    this.before = this.text();
    this.typed.set(typed);
    this.isOpen.set(true);
    this.detector.detectChanges();
    if (typed !== null) this.changed.emit(typed);
    this.typed.set(null);
  }

  /** Enter and F2 begin to type, any letter takes the place of what is there. */
  protected key(event: KeyboardEvent): void {
    if (this.isOpen() || event.target !== event.currentTarget) return;
    const isTyping = event.key.length === 1 && event.key !== ' ' && !event.ctrlKey && !event.metaKey && !event.altKey;
    if (event.key !== 'Enter' && event.key !== 'F2' && event.key !== ' ' && !isTyping) return;
    event.preventDefault();
    this.open(isTyping ? event.key : null);
  }

  protected end(how: EditEnd): void {
    this.isOpen.set(false);
    if (how === 'cancel' && this.text() !== this.before) this.changed.emit(this.before);
    if (how === 'stay') return;
    setTimeout(() => {
      this.element.querySelector<HTMLElement>('.cell')?.focus();
      if (how === 'next' || how === 'previous') this.left.emit(how);
    });
  }
}
