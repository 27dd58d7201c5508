import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, input, LOCALE_ID, output } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { waitingUpdate, type RunRecord, type Shelf } from '@wexikine/core';
import { WholeText } from '../../fields/whole-text';
import { Icon } from '../../icons/icon';
import { updateWords } from '../update-words';

/** The runs of a scene in the order in which they lie on each other, each to change, switch off, move or remove. */
@Component({
  selector: 'wx-runs-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, MatMenuModule, WholeText],
  templateUrl: './runs-panel.html',
  styleUrl: './runs-panel.scss',
})
export class RunsPanel {
  readonly runs = input.required<readonly RunRecord[]>();
  readonly shelf = input.required<Shelf>();
  /** The run that is open in the sentence. */
  readonly open = input.required<string | null>();
  readonly opened = output<RunRecord>();
  readonly updated = output<RunRecord>();
  readonly allUpdated = output();
  readonly dialsWanted = output<RunRecord>();
  readonly switched = output<RunRecord>();
  readonly moved = output<{ run: RunRecord; to: number }>();
  readonly removed = output<RunRecord>();
  readonly duplicated = output<RunRecord>();
  readonly exitWanted = output<RunRecord>();
  readonly recipeKept = output<RunRecord>();
  readonly recipeSaved = output<RunRecord>();
  readonly recipeRead = output<File>();
  private readonly dates = new DatePipe(inject(LOCALE_ID));

  protected readonly rows = computed(() =>
    this.runs().map((run, i) => ({
      run,
      number: i + 1,
      when: this.dates.transform(run.when, 'd MMM, HH:mm') ?? '',
      layers: run.layers.length === 1 ? '1 layer' : `${run.layers.length} layers`,
      isCopies: run.recipe['operation'] === 'multiply',
      isEntrance: run.recipe['operation'] === 'bring-in',
      update: waitingUpdate(run, this.shelf()),
      news: updateWords(run, this.shelf()),
    })),
  );
  protected readonly waiting = computed(
    () => this.rows().filter(({ update, run }) => update && run.off !== true).length,
  );

  protected read(event: Event): void {
    const field = event.target as HTMLInputElement;
    const file = field.files?.[0];
    field.value = '';
    if (file) this.recipeRead.emit(file);
  }
}
