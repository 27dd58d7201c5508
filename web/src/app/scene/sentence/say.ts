import { ChangeDetectionStrategy, ChangeDetectorRef, Component, inject, output, viewChild } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type { Recipe } from '@wexikine/core';
import { Icon } from '../../icons/icon';
import { LibraryService } from '../../library/library.service';
import { RecipeActions } from '../actions/recipe-actions';
import { RunActions } from '../actions/run-actions';
import { Teller } from '../actions/teller';
import { DraftStore } from '../draft.store';
import { PlayerStore } from '../player.store';
import { RunState } from '../run-state';
import { SentenceBar } from './sentence-bar';

/** The run as a sentence, with the buttons that show what it would do and do it. */
@Component({
  selector: 'wx-say',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, SentenceBar],
  templateUrl: './say.html',
  styleUrl: './say.scss',
  host: { role: 'region', 'aria-label': 'The run as a sentence' },
})
export class Say {
  /** A run was applied or changed. */
  readonly applied = output();

  protected readonly draftStore = inject(DraftStore);
  protected readonly run = inject(RunState);
  protected readonly runs = inject(RunActions);
  protected readonly said = inject(RecipeActions);
  private readonly teller = inject(Teller);
  private readonly library = inject(LibraryService);
  private readonly detector = inject(ChangeDetectorRef);
  private readonly sentence = viewChild(SentenceBar);
  protected readonly draft = this.run.draft;
  protected readonly shelf = this.run.shelf;
  protected readonly time = toSignal(inject(PlayerStore).time$, { initialValue: 0 });
  protected readonly libraryState = toSignal(this.library.state$, { requireSync: true });
  protected readonly presets = toSignal(this.library.offered$, { initialValue: [] });

  protected change(recipe: Recipe): void {
    this.draftStore.change(recipe);
    // At once: a field of the sentence changes the recipe that it was given, and that must be the newest.
    this.detector.detectChanges();
  }

  /** The main button, or its keys: first a dry run, then applying it. */
  act(): void {
    if (this.run.isWaiting()) this.draftStore.setLive(true);
    else void this.apply();
  }

  private async apply(): Promise<void> {
    const isChange = this.run.changing() !== null;
    const applied = await this.draftStore.apply();
    if (applied === 'changed')
      this.teller.tell('Nothing was applied: the sentence or the scene was changed meanwhile.');
    if (applied === 'failed')
      this.teller.tell('Nothing was applied: it could not be planned. Change a field and try again.');
    if (applied !== 'done') return;
    // Whatever field was open is done with; the keys now belong to the preview, so that Space plays. The editor gives
    // the focus back to its field as it goes, so the preview takes it after that.
    this.sentence()?.shut();
    this.applied.emit();
    const count = this.draftStore.appliedTo;
    const isCopied = this.run.draft()?.recipe.operation === 'multiply';
    const done = isCopied
      ? `Made ${count === 1 ? '1 copy' : `${count} copies`}.`
      : `Applied to ${count === 1 ? '1 layer' : `${count} layers`}.`;
    this.teller.tell(isChange ? 'The run was changed.' : done);
  }
}
