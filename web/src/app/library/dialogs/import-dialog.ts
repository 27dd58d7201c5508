import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import {
  houseText,
  literalWords,
  PACK_LIMITS,
  type ImportAnswer,
  type ImportChoice,
  type ImportEntry,
  type TokenChange,
  type TokensAnswer,
} from '@wexikine/core';
import { firstValueFrom } from 'rxjs';
import { ApiService, type ApiProblem } from '../../api/api.service';
import { personName } from '../../api/person';
import { base64Of } from '../../files/save-file';
import { Icon } from '../../icons/icon';
import { LibraryActions } from '../library-actions.service';

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

type Read =
  | { readonly type: 'pack'; readonly zip: string; readonly answer: ImportAnswer }
  | { readonly type: 'tokens'; readonly text: string; readonly answer: TokensAnswer };

/** Looks at a pack or a design tokens file, reports what it would bring, and brings all of it or nothing. */
@Component({
  selector: 'wx-import-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, MatDialogModule],
  templateUrl: './import-dialog.html',
  styleUrl: './import-dialog.scss',
})
export class ImportDialog {
  private readonly api = inject(ApiService);
  private readonly actions = inject(LibraryActions);
  private readonly reference = inject(MatDialogRef<ImportDialog>);
  protected readonly statusWords = STATUS_WORDS;
  protected readonly choiceList = CHOICES;
  protected readonly file = signal<File | null>(null);
  protected readonly read = signal<Read | null>(null);
  protected readonly problem = signal<string | null>(null);
  protected readonly isBusy = signal(false);
  protected readonly choices = signal<Readonly<Record<string, ImportChoice>>>({});

  protected readonly entries = computed((): readonly ImportEntry[] => {
    const read = this.read();
    if (read?.type !== 'pack') return [];
    return [...read.answer.entries].sort((a, b) => ORDER.indexOf(a.status) - ORDER.indexOf(b.status));
  });
  protected readonly problems = computed(() => {
    const read = this.read();
    return read?.type === 'pack' ? read.answer.problems : [];
  });
  protected readonly changes = computed((): readonly TokenChange[] => {
    const read = this.read();
    return read?.type === 'tokens' ? read.answer.changes : [];
  });
  protected readonly skipped = computed(() => {
    const read = this.read();
    return read?.type === 'tokens' ? read.answer.skipped : [];
  });
  /** How many items would be written. */
  protected readonly count = computed(() => {
    const chosen = ({ id, status }: ImportEntry): boolean =>
      status === 'new' || status === 'newer' || (status === 'conflict' && this.choiceOf(id) !== 'keep');
    return this.read()?.type === 'tokens'
      ? this.changes().filter(({ status }) => status !== 'same').length
      : this.entries().filter(chosen).length;
  });
  protected readonly summary = computed(() => {
    const counts = ORDER.map(
      (status) => [status, this.entries().filter((entry) => entry.status === status).length] as const,
    );
    return counts
      .filter(([, count]) => count > 0)
      .map(([status, count]) => `${count} ${STATUS_WORDS[status]}`)
      .join(' · ');
  });

  constructor() {
    const given = inject<File | null>(MAT_DIALOG_DATA);
    if (given) void this.look(given);
  }

  protected async choose(event: Event): Promise<void> {
    const field = event.target as HTMLInputElement;
    const [file] = field.files ?? [];
    field.value = '';
    if (file) await this.look(file);
  }

  protected async drop(event: DragEvent): Promise<void> {
    event.preventDefault();
    const [file] = event.dataTransfer?.files ?? [];
    if (file) await this.look(file);
  }

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

  protected words(value: TokenChange['before']): string {
    if (value === null) return '';
    if (!('colours' in value)) return literalWords(houseText(value));
    const { colours, ramps = [] } = value;
    const count = colours.length === 1 ? '1 colour' : `${colours.length} colours`;
    return ramps.length === 0 ? count : `${count}, ${ramps.length === 1 ? '1 ramp' : `${ramps.length} ramps`}`;
  }

  protected async bring(): Promise<void> {
    const read = this.read();
    if (!read) return;
    const answer = await this.ask(() => this.send(read, false));
    if (!answer) return;
    if (answer.answer.written === 0) return this.read.set(answer);
    this.reference.close();
    const { written } = answer.answer;
    this.actions.tell(`${written === 1 ? '1 item was' : `${written} items were`} imported.`);
  }

  private async look(file: File): Promise<void> {
    this.file.set(file);
    this.read.set(null);
    this.choices.set({});
    if (file.size > PACK_LIMITS.file) {
      const size = Math.round(file.size / 1_048_576);
      return this.problem.set(
        `${file.name} has ${size} MB, and a pack has at most 32 MB. Export fewer items at a time.`,
      );
    }
    const found = await this.ask(() => this.readFile(file));
    if (found) this.read.set(found);
  }

  private async readFile(file: File): Promise<Read> {
    const isJson = /\.json$|\.tokens$/i.test(file.name) || file.type === 'application/json';
    if (isJson) return this.send({ type: 'tokens', text: await file.text() }, true);
    return this.send({ type: 'pack', zip: await base64Of(file) }, true);
  }

  private async send(
    read: { readonly type: 'pack'; readonly zip: string } | { readonly type: 'tokens'; readonly text: string },
    dry: boolean,
  ): Promise<Read> {
    const by = personName();
    if (read.type === 'pack') {
      const body = { by, dry, zip: read.zip, choices: this.choices() };
      return { type: 'pack', zip: read.zip, answer: await firstValueFrom(this.api.importPack(body)) };
    }
    const body = { by, dry, text: read.text, file: (this.file()?.name ?? 'a file').slice(0, 200) };
    return { type: 'tokens', text: read.text, answer: await firstValueFrom(this.api.importTokens(body)) };
  }

  private async ask(work: () => Promise<Read>): Promise<Read | null> {
    this.problem.set(null);
    this.isBusy.set(true);
    try {
      return await work();
    } catch (error) {
      this.problem.set((error as ApiProblem).message);
      return null;
    } finally {
      this.isBusy.set(false);
    }
  }
}
