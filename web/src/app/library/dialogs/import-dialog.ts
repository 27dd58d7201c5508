import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { PACK_LIMITS, type ImportAnswer, type ImportEntry, type TokenChange, type TokensAnswer } from '@wexikine/core';
import { firstValueFrom } from 'rxjs';
import { ApiService, type ApiProblem } from '../../api/api.service';
import { personName } from '../../api/person';
import { base64Of } from '../../files/save-file';
import { Icon } from '../../icons/icon';
import { LibraryActions } from '../library-actions.service';
import { ImportEntries, isWritten, type ImportChoices } from './import-entries';
import { TokenChanges } from './token-changes';

type Read =
  | { readonly type: 'pack'; readonly zip: string; readonly answer: ImportAnswer }
  | { readonly type: 'tokens'; readonly text: string; readonly answer: TokensAnswer };

/** Looks at a pack or a design tokens file, reports what it would bring, and brings all of it or nothing. */
@Component({
  selector: 'wx-import-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, ImportEntries, MatDialogModule, TokenChanges],
  templateUrl: './import-dialog.html',
  styleUrl: './import-dialog.scss',
})
export class ImportDialog {
  private readonly api = inject(ApiService);
  private readonly actions = inject(LibraryActions);
  private readonly reference = inject(MatDialogRef<ImportDialog>);
  protected readonly file = signal<File | null>(null);
  protected readonly read = signal<Read | null>(null);
  protected readonly problem = signal<string | null>(null);
  protected readonly isBusy = signal(false);
  protected readonly choices = signal<ImportChoices>({});

  protected readonly entries = computed((): readonly ImportEntry[] => {
    const read = this.read();
    return read?.type === 'pack' ? read.answer.entries : [];
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
  protected readonly count = computed(() =>
    this.read()?.type === 'tokens'
      ? this.changes().filter(({ status }) => status !== 'same').length
      : this.entries().filter((entry) => isWritten(entry, this.choices())).length,
  );

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
