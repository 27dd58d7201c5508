import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { MatSnackBar } from '@angular/material/snack-bar';
import { HttpErrorResponse } from '@angular/common/http';
import { RouterLink } from '@angular/router';
import { fileAddress, fileType, type KeptFile } from '@wexikine/core';
import { KeptFiles } from '../files/kept-files';
import { Icon } from '../icons/icon';
import { readInPlace } from '../scene/artwork/file-in-place';
import { countedWords, fileFacts, fileSize, removeWords, standing, whereWords } from './file-words';
import { ReplaceEverywhere } from './replace-everywhere';

/** What stands for files that are no still pictures. */
const ICONS = { clip: 'movie', font: 'font_download', sound: 'graphic_eq', picture: 'image' } as const;

/** Files that a chooser offers in the place of one of a kind. */
const PICTURES = 'image/*,.svg,video/webm,video/mp4';
const ACCEPTED = { picture: PICTURES, clip: PICTURES, font: '.ttf,.otf,.woff2', sound: '' } as const;

/** Every picture, clip, font and sound that is kept: how large it is, and which scenes use it. */
@Component({
  selector: 'wx-files-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, RouterLink],
  templateUrl: './files-page.html',
  styleUrl: './files-page.scss',
})
export class FilesPage {
  private readonly kept = inject(KeptFiles);
  private readonly everywhere = inject(ReplaceEverywhere);
  private readonly snackBar = inject(MatSnackBar);
  private readonly files = toSignal(this.kept.files$, { requireSync: true });
  protected readonly icons = ICONS;
  protected readonly isLoaded = signal(false);
  protected readonly problem = signal<string | null>(null);
  protected readonly rows = computed(() =>
    this.files().map((file) => ({
      file,
      address: `/api/${fileAddress(file.name)}`,
      kind: fileType(file.name).kind,
      title: file.facts.family ?? (file.title || 'Without a name'),
      facts: fileFacts(file),
      size: fileSize(file.size),
      accept: ACCEPTED[fileType(file.name).kind],
      canReplace: standing(file.uses).length > 0 && fileType(file.name).kind !== 'sound',
      where: whereWords(file.uses),
      removeWords: removeWords(file.uses),
    })),
  );
  /** The file whose place is being taken. */
  protected readonly busy = signal<string | null>(null);
  protected readonly about = computed(() => {
    const bytes = this.files().reduce((sum, { size }) => sum + size, 0);
    const unused = this.files().filter(({ uses }) => uses.length === 0).length;
    const count = this.files().length === 1 ? '1 file' : `${this.files().length} files`;
    return `${count}, ${fileSize(bytes)} together${unused > 0 ? `; ${unused} not used in any scene` : ''}`;
  });

  constructor() {
    void this.load();
  }

  protected async load(): Promise<void> {
    this.problem.set(null);
    try {
      await this.kept.load();
      this.isLoaded.set(true);
    } catch {
      this.problem.set('The server does not answer. Check that it is running, and try again.');
    }
  }

  /** Puts another file in its place in every scene, and offers to take that back. */
  protected async replace(before: KeptFile, title: string, event: Event): Promise<void> {
    const field = event.target as HTMLInputElement;
    const [file] = field.files ?? [];
    field.value = '';
    if (!file || this.busy() !== null) return;
    this.busy.set(before.name);
    try {
      const read = await readInPlace(file, before.name, this.kept);
      const what = `Replace “${title}” by “${read.name}”`;
      const replacement = await this.everywhere.replace(before, read.file, what);
      if (replacement.layers === 0)
        return this.told(`“${title}” was not replaced: only deleted scenes use it, which stay as they are.`);
      this.told(`“${read.name}” took the place of “${title}” on ${countedWords(replacement)}.`, 'Undo', async () => {
        await this.everywhere.takeBack(replacement, `Take back: ${what}`);
        this.told(`“${title}” is back where it was.`);
      });
    } catch (error) {
      this.told(`“${title}” was not replaced: ${(error as Error).message}`);
    } finally {
      this.busy.set(null);
      await this.load();
    }
  }

  private told(message: string, action = 'Close', done?: () => Promise<void>): void {
    const shown = this.snackBar.open(message, action, { duration: 20_000 });
    if (!done) return;
    shown.onAction().subscribe(() => {
      done()
        .catch((error: Error) => this.told(`It was not taken back: ${error.message}`))
        .finally(() => void this.load());
    });
  }

  protected async remove({ name }: KeptFile, title: string): Promise<void> {
    try {
      await this.kept.remove(name);
      this.snackBar.open(`“${title}” was removed.`, 'Close', { duration: 8_000 });
    } catch (error) {
      const said =
        error instanceof HttpErrorResponse ? (error.error as { message?: string } | null)?.message : undefined;
      this.snackBar.open(said ?? 'It was not removed. Try again.', 'Close', { duration: 12_000 });
      await this.load();
    }
  }
}
