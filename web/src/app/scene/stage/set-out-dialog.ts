import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { apply, setOut, type Scene, type SetOut } from '@wexikine/core';
import { ScenePicture } from '../../drawing/scene-picture';
import { readSetOut, setOutWords, type SetOutFields, type SetOutKind } from './set-out-form';

/** What is to be set out. */
export interface SetOutQuestion {
  readonly scene: Scene;
  readonly ids: ReadonlySet<string>;
  /** "9 pictures". */
  readonly what: string;
}

const KINDS: readonly { readonly kind: SetOutKind; readonly label: string; readonly note: string }[] = [
  { kind: 'at once', label: 'All at once', note: 'in a grid over the frame' },
  { kind: 'in turn', label: 'One after another', note: 'in the whole frame' },
  { kind: 'rows', label: 'Rows that are replaced', note: 'rows take turns' },
];

const STORED = 'wexikine.set-out';
const USUAL: SetOutFields = { kind: 'rows', size: 'whole', hold: '5s', rows: '3', apart: '1s' };

/** What was chosen last in this browser. */
function chosenLast(): SetOutFields {
  try {
    const stored = JSON.parse(localStorage.getItem(STORED) ?? '{}') as Partial<SetOutFields>;
    return { ...USUAL, ...stored, kind: KINDS.find(({ kind }) => kind === stored.kind)?.kind ?? USUAL.kind };
  } catch {
    return USUAL;
  }
}

/** Asks how pictures are to stand in the frame and in time, and shows what comes of it. */
@Component({
  selector: 'wx-set-out-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatDialogModule, ScenePicture],
  templateUrl: './set-out-dialog.html',
  styleUrl: './set-out-dialog.scss',
})
export class SetOutDialog {
  protected readonly asked = inject<SetOutQuestion>(MAT_DIALOG_DATA);
  private readonly reference = inject(MatDialogRef<SetOutDialog, SetOut>);
  protected readonly kinds = KINDS;
  protected readonly fields = signal(chosenLast());
  private readonly way = computed(() => readSetOut(this.fields(), this.asked.ids.size, this.asked.scene.rate));
  private readonly made = computed(() => {
    const way = this.way();
    return typeof way === 'string' ? null : setOut(this.asked.scene, this.asked.ids, way);
  });
  protected readonly problem = computed(() => {
    const way = this.way();
    return typeof way === 'string' ? way : null;
  });
  protected readonly words = computed(() => {
    const made = this.made();
    const { length, rate } = this.asked.scene;
    return made ? setOutWords(made, length, rate) : '';
  });
  protected readonly picture = computed(() => {
    const made = this.made();
    const result = made ? apply(this.asked.scene, made.edits) : null;
    return result?.ok === true ? result.scene : this.asked.scene;
  });
  protected readonly isPlaying = signal(false);

  protected set(change: Partial<SetOutFields>): void {
    this.fields.update((fields) => ({ ...fields, ...change }));
  }

  protected text(event: Event): string {
    return (event.target as HTMLInputElement).value;
  }

  protected close(): void {
    const made = this.made();
    if (!made) return;
    localStorage.setItem(STORED, JSON.stringify(this.fields()));
    this.reference.close(made);
  }
}
