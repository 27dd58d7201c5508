import { ChangeDetectionStrategy, Component, computed, input, model } from '@angular/core';
import type { ImportChoice, ImportEntry } from '@wexikine/core';

const STATUS_WORDS = {
  new: 'new',
  same: 'the same',
  newer: 'newer',
  older: 'older than here',
  conflict: 'conflicting',
} as const;

const CHOICES: readonly { readonly value: ImportChoice; readonly label: string }[] = [
  { value: 'keep', label: 'Keep what is here' },
  { value: 'take', label: 'Take what comes' },
  { value: 'both', label: 'Have both' },
];

/** What is conflicting is told first, then what would change, then what would not. */
const ORDER = ['conflict', 'new', 'newer', 'older', 'same'] as const;

/** What is chosen for items that conflict, by their ids; those without a choice stay as they are here. */
export type ImportChoices = Readonly<Record<string, ImportChoice>>;

/** Items in the order in which they are told. */
export function inOrder(entries: readonly ImportEntry[]): ImportEntry[] {
  return [...entries].sort((a, b) => ORDER.indexOf(a.status) - ORDER.indexOf(b.status));
}

/** How many items there are of each kind of difference, in words. */
export function entriesInWords(entries: readonly ImportEntry[]): string {
  const counts = ORDER.map((one) => [one, entries.filter(({ status }) => status === one).length] as const);
  return counts
    .filter(([, count]) => count > 0)
    .map(([status, count]) => `${count} ${STATUS_WORDS[status]}`)
    .join(' · ');
}

/** Whether an item would be written. */
export function isWritten({ id, status }: ImportEntry, choices: ImportChoices): boolean {
  return status === 'new' || status === 'newer' || (status === 'conflict' && (choices[id] ?? 'keep') !== 'keep');
}

/** The items of a pack beside what is here, with a choice where the two conflict. */
@Component({
  selector: 'wx-import-entries',
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './import-entries.html',
  styleUrl: './import-table.scss',
})
export class ImportEntries {
  readonly entries = input.required<readonly ImportEntry[]>();
  readonly choices = model.required<ImportChoices>();
  protected readonly shown = computed(() => inOrder(this.entries()));
  protected readonly summary = computed(() => entriesInWords(this.entries()));
  protected readonly statusWords = STATUS_WORDS;
  protected readonly choiceList = CHOICES;

  protected choiceOf(id: string): ImportChoice {
    return this.choices()[id] ?? 'keep';
  }

  protected setChoice(id: string, event: Event): void {
    const value = (event.target as HTMLSelectElement).value as ImportChoice;
    this.choices.update((choices) => ({ ...choices, [id]: value }));
  }

  protected chooseForAll(value: ImportChoice): void {
    const conflicting = this.entries().filter(({ status }) => status === 'conflict');
    this.choices.set(Object.fromEntries(conflicting.map(({ id }) => [id, value])));
  }
}
