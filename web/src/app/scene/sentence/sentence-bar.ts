import { CdkTrapFocus } from '@angular/cdk/a11y';
import { CdkConnectedOverlay, CdkOverlayOrigin } from '@angular/cdk/overlay';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import {
  settingsOf,
  parametersFor,
  sentenceParts,
  type Operation,
  type PlanCounts,
  type PresetItem,
  type Recipe,
  type SavedPick,
  type Scene,
  type SentenceField,
  type SentencePart,
  type Shelf,
  type Solved,
} from '@wexikine/core';
import { Scrub } from '../../fields/scrub';
import { FieldHelpButton } from '../../help/field-help';
import { stepsOfKey } from '../../fields/value-field';
import { missingExtras } from './multiply-editor';
import { missingColours, missingNumbers } from './style-choices';
import { EditorStart } from './editor-start';
import { FieldEditor } from './field-editor';
import { canScrub, scrubField } from './scrub-field';

/** The field whose editor is open. */
export type OpenField = SentenceField | 'add-parameter';

/** A part of the sentence with the comma or full stop that must not be parted from it by a line break. */
interface Piece extends SentencePart {
  readonly tail: string;
  /** Where parameters end and another can be set. */
  readonly isLast: boolean;
}

const ADD_LABELS: Readonly<Partial<Record<Operation, string>>> = {
  adjust: 'Another step',
  style: 'Let a colour differ',
  multiply: 'Say more of the copies',
};
const LAST = ', and ';
const MOST_STEPS = 20;

/** Letters that two lines have room for at the usual width. */
const LONG = 190;

function withTails(parts: readonly SentencePart[], endsOpen: boolean): Piece[] {
  return parts.map((part, i) => {
    const next = parts[i + 1]?.text ?? '';
    const isAfterField = i > 0 && parts[i - 1].field !== null;
    const tail = part.field !== null && /^[,.]/.test(next) ? next[0] : '';
    const text = part.field === null && isAfterField ? part.text.replace(/^[,.]/, '') : part.text;
    // Parameters end before what is done over keys; a rig's sentence ends with them.
    return { field: part.field, text, tail, isLast: part.text === LAST || (part.text === '.' && endsOpen) };
  });
}

/** Fields whose value differs from layer to layer or is a number; the dry run's colour marks them. */
function isNumeric(field: SentenceField): boolean {
  return ['spacing', 'length', 'start', 'finish', 'later'].includes(field) || field.startsWith('parameter:');
}

/** The recipe as a sentence; every underlined part opens an editor of its own, numbers can be dragged. */
@Component({
  selector: 'wx-sentence-bar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CdkConnectedOverlay, CdkOverlayOrigin, CdkTrapFocus, EditorStart, FieldEditor, FieldHelpButton, Scrub],
  templateUrl: './sentence-bar.html',
  styleUrl: './sentence-bar.scss',
  host: { '[class.waiting]': 'isWaiting()', '[class.long]': 'isLong()' },
})
export class SentenceBar {
  readonly recipe = input.required<Recipe>();
  readonly scene = input.required<Scene>();
  readonly items = input.required<readonly PresetItem[]>();
  readonly shelf = input.required<Shelf>();
  readonly playhead = input.required<number>();
  /** How many layers take part. */
  readonly count = input.required<number>();
  readonly solved = input<Solved | null>(null);
  readonly counts = input<PlanCounts | null>(null);
  /** True where the sentence waits and nothing is shown of it. */
  readonly isWaiting = input(false);
  readonly changed = output<Recipe>();
  /** A field was opened: one wants to see what it would do. */
  readonly opened = output();
  readonly kept = output<SavedPick>();
  readonly forgotten = output<string>();

  protected readonly open = signal<OpenField | null>(null);
  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private held: Recipe | null = null;
  /** The recipe as last given on: keys can follow each other faster than the screen is drawn. */
  private readonly latest = linkedSignal(() => this.recipe());

  /** Recipes by operation as they were left, so that one that one comes back to is as it was. */
  protected readonly left = new Map<Operation, Recipe>();

  constructor() {
    effect(() => {
      const recipe = this.recipe();
      this.left.delete(recipe.operation);
      this.left.set(recipe.operation, recipe);
    });
  }

  protected readonly parts = computed(() => {
    const facts = { scene: this.scene(), shelf: this.shelf(), count: this.count(), solved: this.solved() };
    return withTails(
      sentenceParts(this.recipe(), facts),
      ['rig', 'adjust', 'pass-on', 'style', 'multiply'].includes(this.recipe().operation),
    );
  });

  protected readonly addLabel = computed(() => ADD_LABELS[this.recipe().operation] ?? 'Set another parameter');

  protected readonly canAdd = computed(() => {
    const recipe = this.recipe();
    if (recipe.operation === 'adjust') return recipe.steps.length < MOST_STEPS;
    if (recipe.operation === 'style' && missingColours(recipe).length + missingNumbers(recipe).length > 0) return true;
    if (recipe.operation === 'multiply') return missingExtras(recipe).length > 0;
    const settings = settingsOf(recipe);
    return settings !== null && parametersFor(recipe, this.shelf()).some(({ name }) => settings[name] === undefined);
  });

  protected isNumeric(part: SentencePart): boolean {
    return part.field !== null && isNumeric(part.field);
  }

  protected canScrub({ field }: SentencePart): boolean {
    return field !== null && canScrub(this.recipe(), field, this.scene().rate);
  }

  protected hold(): void {
    this.open.set(null);
    this.held = this.recipe();
  }

  protected scrub({ field }: SentencePart, steps: number): void {
    if (this.held && field !== null) this.changed.emit(scrubField(this.held, field, steps, this.scene().rate));
  }

  protected toggle(field: OpenField | null): void {
    this.open.update((open) => (open === field ? null : field));
    if (this.open() !== null) this.opened.emit();
  }

  /** Closes the editor that is open, without giving the focus back. */
  shut(): void {
    this.open.set(null);
  }

  /** A sentence of three lines is set smaller, so that it takes the room of two. */
  protected readonly isLong = computed(() => this.parts().reduce((sum, { text }) => sum + text.length, 0) > LONG);

  /** Closes the editor and gives the focus back to its field, wherever it was meanwhile. */
  protected close(of: OpenField | null = this.open()): void {
    const field = this.open();
    // An editor that goes because another one was opened closes nothing.
    if (of !== field) return;
    if (field === null) return;
    // Before the editor goes, which is quicker than when it took the focus with it; and where the field is afterwards.
    this.focus(field);
    this.open.set(null);
    setTimeout(() => {
      // Whoever has gone on to another field meanwhile stays there.
      if (!document.activeElement || document.activeElement === document.body) this.focus(field);
    });
  }

  private focus(field: OpenField): void {
    const button = this.element.querySelector<HTMLElement>(`[data-field="${field}"]`);
    if (button !== document.activeElement) button?.focus();
  }

  protected key(event: KeyboardEvent, { field }: SentencePart): void {
    if (field === null || !(event.key === 'ArrowUp' || event.key === 'ArrowDown')) return;
    if (!canScrub(this.latest(), field, this.scene().rate)) return;
    event.preventDefault();
    const steps = stepsOfKey(event);
    const next = scrubField(this.latest(), field, steps, this.scene().rate);
    this.latest.set(next);
    this.changed.emit(next);
  }

  protected addParameter(recipe: Recipe, field: SentenceField): void {
    this.open.set(field);
    this.changed.emit(recipe);
  }
}
