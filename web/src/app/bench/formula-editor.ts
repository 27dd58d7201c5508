import {
  autocompletion,
  completionStatus,
  acceptCompletion,
  closeCompletion,
  selectedCompletion,
  type CompletionContext,
  type CompletionResult,
} from '@codemirror/autocomplete';
import { history, historyKeymap, insertNewline, standardKeymap } from '@codemirror/commands';
import { EditorState, Prec, RangeSetBuilder } from '@codemirror/state';
import { Decoration, EditorView, keymap, ViewPlugin, type DecorationSet, type ViewUpdate } from '@codemirror/view';
import {
  ChangeDetectionStrategy,
  Component,
  type AfterViewInit,
  effect,
  ElementRef,
  inject,
  input,
  type OnDestroy,
  output,
} from '@angular/core';
import type { Completion } from './completions';
import { unitCompletions } from './completions';
import { tokensOf } from './formula-tokens';

/** How a formula's editing ended: kept and on to a neighbour, or taken back. */
export type EditEnd = 'down' | 'next' | 'previous' | 'stay' | 'cancel';

const TYPE_NAMES = { parameter: 'variable', name: 'property', function: 'function', word: 'keyword', unit: 'constant' };

/** Completes parameters after an @, names and functions after letters, units after a number. */
function completeWith(completions: readonly Completion[]) {
  const options = completions.map(({ label, detail, type, apply }) => ({
    label,
    detail,
    apply,
    type: TYPE_NAMES[type],
  }));
  return (context: CompletionContext): CompletionResult | null => {
    const number = context.matchBefore(/(?<![\w.@])\d+(\.\d+)?[a-zA-Z%]*$/);
    if (number && /\d/.test(number.text)) {
      const amount = /^[\d.]+/.exec(number.text)?.[0] ?? '';
      const units = unitCompletions(amount).map(({ label, detail }) => ({ label, detail, type: 'constant' }));
      return { from: number.from, options: units, validFor: /^[\d.]+[a-zA-Z%]*$/ };
    }
    const word = context.matchBefore(/(?<![\w.@])@?[A-Za-z_][\w.]*$|@$/);
    if (!word && !context.explicit) return null;
    return { from: word?.from ?? context.pos, options, validFor: /^@?[\w.]*$/ };
  };
}

/** Accepts the chosen completion, unless what it would write is typed already. */
function completes(view: EditorView): boolean {
  if (completionStatus(view.state) !== 'active') return false;
  const chosen = selectedCompletion(view.state);
  const { head } = view.state.selection.main;
  const before = view.state.sliceDoc(0, head);
  const isTyped = chosen !== null && typeof chosen.apply !== 'string' && before.endsWith(chosen.label);
  return !isTyped && acceptCompletion(view);
}

function colours(view: EditorView): DecorationSet {
  const builder = new RangeSetBuilder<Decoration>();
  for (const { from, to, kind } of tokensOf(view.state.doc.toString())) {
    if (kind !== 'plain') builder.add(from, to, Decoration.mark({ class: `token-${kind}` }));
  }
  return builder.finish();
}

const colouring = ViewPlugin.fromClass(
  class {
    decorations: DecorationSet;
    constructor(view: EditorView) {
      this.decorations = colours(view);
    }
    update(update: ViewUpdate): void {
      if (update.docChanged) this.decorations = colours(update.view);
    }
  },
  { decorations: (plugin) => plugin.decorations },
);

/**
 * A formula while it is typed, coloured and completed. Enter keeps it and goes down, Tab goes on, Shift+Enter begins a
 * new line (for `let`), Escape takes back what was typed.
 */
@Component({
  selector: 'wx-formula-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '',
  styles: `
    :host {
      display: block;
      min-width: 0;
    }
  `,
})
export class FormulaEditor implements AfterViewInit, OnDestroy {
  readonly text = input.required<string>();
  readonly label = input.required<string>();
  readonly completions = input.required<readonly Completion[]>();
  /** Stands open by itself, with as many lines as one likes; Enter begins a new one. */
  readonly isBlock = input(false);
  readonly changed = output<string>();
  readonly ended = output<EditEnd>();

  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private view: EditorView | null = null;
  private hasEnded = false;
  /** The text that was given on last. */
  private given: string | null = null;

  ngAfterViewInit(): void {
    const text = this.text();
    const end = (how: EditEnd) => () => {
      this.end(how);
      return true;
    };
    const block = [
      { key: 'Enter', run: (view: EditorView) => completes(view) || insertNewline(view) },
      { key: 'Tab', run: completes },
      { key: 'Escape', run: closeCompletion },
    ];
    const cell = [
      { key: 'Enter', run: (view: EditorView) => completes(view) || end('down')() },
      { key: 'Shift-Enter', run: insertNewline },
      { key: 'Tab', run: (view: EditorView) => completes(view) || end('next')() },
      { key: 'Shift-Tab', run: end('previous') },
      { key: 'Escape', run: (view: EditorView) => closeCompletion(view) || end('cancel')() },
    ];
    const keys = Prec.highest(keymap.of(this.isBlock() ? block : cell));
    this.view = new EditorView({
      parent: this.element,
      state: EditorState.create({
        doc: text,
        selection: { anchor: text.length },
        extensions: [
          keys,
          keymap.of([...standardKeymap, ...historyKeymap]),
          history(),
          autocompletion({
            override: [(context) => completeWith(this.completions())(context)],
            icons: false,
            activateOnTypingDelay: 30,
          }),
          colouring,
          EditorView.lineWrapping,
          EditorView.contentAttributes.of({ 'aria-label': this.label(), spellcheck: 'false', autocapitalize: 'off' }),
          EditorView.updateListener.of((update) => {
            if (!update.docChanged) return;
            const text = update.state.doc.toString();
            if (text === this.text()) return;
            this.given = text;
            this.changed.emit(text);
          }),
          EditorView.domEventHandlers({ blur: () => this.leave() }),
        ],
      }),
    });
    if (!this.isBlock()) this.view.focus();
  }

  constructor() {
    // What becomes different elsewhere, by undo or by a parameter's new name, is shown in an editor that stays open.
    effect(() => {
      const text = this.text();
      const shown = this.view?.state.doc.toString();
      if (!this.isBlock() || !this.view || shown === undefined || shown === text || this.given === text) return;
      this.view.dispatch({ changes: { from: 0, to: shown.length, insert: text } });
    });
  }

  ngOnDestroy(): void {
    this.hasEnded = true;
    this.view?.destroy();
  }

  /** The focus went elsewhere by itself; what was typed stays. */
  private leave(): void {
    setTimeout(() => {
      if (this.view?.hasFocus) return;
      // A list that is still looked for would open in an editor that nobody is in any more.
      if (this.view) closeCompletion(this.view);
      this.end('stay');
    });
  }

  private end(how: EditEnd): void {
    if (this.hasEnded) return;
    this.hasEnded = true;
    this.ended.emit(how);
  }
}
