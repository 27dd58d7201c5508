import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { MatDialog } from '@angular/material/dialog';
import { MatMenuModule } from '@angular/material/menu';
import {
  countPicks,
  easePicks,
  easingFromStrengths,
  easingText,
  flattenPicks,
  isDialLayer,
  joinPicks,
  linkedEasing,
  mirrorPicks,
  readCurves,
  setSpeeds,
  smoothPicks,
  stepByHand,
  unlinked,
  unlinkPicks,
  withDialLayers,
  type ChannelId,
  type Easing,
  type HandChange,
  type HandPicks,
  type PickedCurves,
  type Scene,
  type Shelf,
  type Side,
} from '@wexikine/core';
import { enterMany, stepOfEntry } from '../../fields/many-entry';
import { Icon } from '../../icons/icon';
import { LibraryActions } from '../../library/library-actions.service';
import { KeyEdits } from '../keys/key-edits';
import { PickedFields } from '../keys/picked-fields';
import { CurveDialog, type CurveSource } from './curve-dialog';
import { curveWords, fieldText, speedUnit } from './curve-figures';

/** Ways to turn the curve at all picked keys, with their mark and what they do. */
const TURNS = [
  {
    id: 'flat',
    label: 'Flat',
    path: 'M1 12C6 12 6 9 9 9S12 6 17 6M4 9H14',
    does: 'Comes to rest at the key, and leaves it from rest',
  },
  {
    id: 'smooth',
    label: 'Smooth',
    path: 'M1 15C6 14 6 11 9 9S12 3 17 3',
    does: 'Passes the key smoothly, never beyond its neighbours',
  },
  {
    id: 'through',
    label: 'Same speed',
    path: 'M1 16L9 9L17 2M6 11.5L12 6.5',
    does: 'Leaves at the speed at which it arrives',
  },
  {
    id: 'mirror',
    label: 'Mirror',
    path: 'M2 15C2 5 5 3 8 3M16 3C16 13 13 15 10 15',
    does: 'The curve after the key, turned round: what left quickly arrives quickly',
  },
] as const;
type Turn = (typeof TURNS)[number]['id'];

const TURNED: Readonly<Record<Turn, (scene: Scene, picks: HandPicks) => HandChange>> = {
  flat: flattenPicks,
  smooth: smoothPicks,
  through: joinPicks,
  mirror: mirrorPicks,
};

const STANDARD = easingFromStrengths(0.35, 0.35);

/** What can be done with the curves at the picked keys: strengths, speeds, turns, and curves of the library. */
@Component({
  selector: 'wx-curve-tools',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, MatMenuModule, PickedFields],
  templateUrl: './curve-tools.html',
  styleUrl: './curve-tools.scss',
})
export class CurveTools {
  /** As it stands. */
  readonly scene = input.required<Scene>();
  readonly shelf = input.required<Shelf>();
  /** Time and value of the keys, too; where there is room. */
  readonly isWide = input(false);
  readonly told = output<string>();

  private readonly edits = inject(KeyEdits);
  private readonly dialog = inject(MatDialog);
  private readonly library = inject(LibraryActions);
  protected readonly turns = TURNS;
  protected readonly picks = toSignal(this.edits.told$, { requireSync: true });
  protected readonly count = computed(() => countPicks(this.picks()));
  protected readonly curves = computed(() => readCurves(withDialLayers(this.scene()), this.picks()));
  protected readonly words = computed(() => curveWords(this.curves()));
  protected readonly problem = signal<string | null>(null);
  /** The unit of speeds; null where the picked keys are of channels that cannot be compared. */
  protected readonly unit = computed(() => {
    if ([...this.picks().keys()].some(isDialLayer)) return null;
    const channels = [...new Set([...this.picks().values()].flatMap((own) => [...own.keys()]))];
    const units = channels.map((channel: ChannelId) => speedUnit(channel));
    return units.length > 0 && units.every(({ words }) => words === units[0].words) ? units[0] : null;
  });
  protected readonly sides = computed(() => [
    { side: 'arrive' as const, label: 'Arrives', ...this.texts('arrive', this.curves()) },
    { side: 'leave' as const, label: 'Leaves', ...this.texts('leave', this.curves()) },
  ]);
  /** The newer revision of the library's curve that is on the picked keys. */
  protected readonly newer = computed(() => {
    const { link } = this.curves();
    const found = link && this.shelf().curve(link.id);
    return link && found && found.revision > link.revision ? found.revision : null;
  });
  private readonly copied = signal<Easing | null>(null);
  protected readonly canPaste = computed(() => this.copied() !== null);

  protected turn(turn: Turn): void {
    const { label } = TURNS.find(({ id }) => id === turn) ?? TURNS[0];
    this.do(label, TURNED[turn]);
  }

  /** Strengths are a way to write a Bézier: how far the handle reaches, and level. */
  protected typeStrength(event: Event, side: Side): void {
    const name = side === 'leave' ? 'leave' : 'reach';
    const problem = 'Write a strength from 0 to 100, or +10 to change each by 10.';
    this.type(event, side, 'strength', problem, (change) => {
      const [way, by] = stepOfEntry(change);
      const share = way === 'scale' ? by : by / 100;
      const step = { id: 's1', type: 'strengths', way, parts: side === 'leave' ? 'departure' : 'arrival' } as const;
      this.do(side === 'leave' ? 'Departure strength' : 'Arrival strength', (scene, picks) =>
        stepByHand(scene, picks, step, (wanted) => (wanted === name ? share : 0)),
      );
    });
  }

  protected typeSpeed(event: Event, side: Side): void {
    const by = this.unit()?.by ?? 1;
    this.type(event, side, 'speed', 'Write a speed such as 300, or ×2 for twice as fast.', (change) =>
      this.do(side === 'leave' ? 'Speed of leaving' : 'Speed of arriving', (scene, picks) =>
        setSpeeds(scene, picks, [side], (speed) => change(speed * by) / by),
      ),
    );
  }

  protected choose(): void {
    const data: CurveSource = { ease: this.curves().ease ?? STANDARD, shelf: this.shelf(), words: this.edits.words() };
    this.dialog
      .open<CurveDialog, CurveSource, Easing>(CurveDialog, { data, width: '396px' })
      .afterClosed()
      .subscribe((ease) => ease && this.put(ease));
  }

  protected copy(): void {
    const { ease } = this.curves();
    if (!ease) return;
    this.copied.set(ease);
    const text = easingText(ease);
    if (text !== null) void navigator.clipboard?.writeText(text).catch(() => undefined);
    this.told.emit('The curve is copied; paste it onto other keys.');
  }

  protected paste(): void {
    const ease = this.copied();
    if (ease) this.put(ease);
  }

  protected unlink(): void {
    this.do('Keep the curve without its link', unlinkPicks);
  }

  protected takeNewer(): void {
    const { link } = this.curves();
    const found = link && this.shelf().curve(link.id);
    if (link && found) this.put(linkedEasing(found.easing, { ...link, revision: found.revision }));
  }

  /** The curve as a draft of the library; the keys stay as they are until it is published. */
  protected async save(): Promise<void> {
    const { ease } = this.curves();
    if (!ease || ease.type === 'handles') return;
    const content = { kind: 'curve' as const, body: { easing: unlinked(ease) as never } };
    const name = `From ${this.scene().name}`.slice(0, 200).replace(/[<>]/g, '');
    await this.library.createDraft(
      {
        name,
        note: `Drawn in the scene ${this.scene().name}.`.replace(/[<>]/g, ''),
        tags: [],
        collection: null,
        content,
      },
      'The curve is a draft of the library now. Name and publish it there.',
    );
  }

  private put(ease: Easing): void {
    this.do('Put a curve on', (scene, picks) => easePicks(scene, picks, ease));
  }

  private do(label: string, change: (scene: Scene, picks: HandPicks) => HandChange): void {
    const made = change(this.edits.keyScene, this.edits.picks);
    this.edits.change(`${label}: ${this.edits.words()}`, { ...made, picks: this.edits.picks });
  }

  private texts(side: Side, curves: PickedCurves): { readonly strength: string; readonly speed: string } {
    const [strength, speed] = side === 'leave' ? [curves.departure, curves.leave] : [curves.arrival, curves.arrive];
    return { strength: fieldText(strength, 100), speed: fieldText(speed, this.unit()?.by ?? 1) };
  }

  private type(
    event: Event,
    side: Side,
    of: 'strength' | 'speed',
    problem: string,
    work: (change: (before: number) => number) => void,
  ): void {
    const field = event.target as HTMLInputElement;
    const change = enterMany(field.value);
    const isEmpty = field.value.trim() === '';
    this.problem.set(isEmpty || change ? null : problem);
    if (isEmpty || !change) return;
    work(change);
    // What was typed may be a change: the field then shows what came of it.
    field.value = this.texts(side, readCurves(this.edits.keyScene, this.edits.picks))[of];
  }
}
