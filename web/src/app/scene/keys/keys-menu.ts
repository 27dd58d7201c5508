import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { MatDialog } from '@angular/material/dialog';
import { MatMenuModule } from '@angular/material/menu';
import {
  CHANNELS,
  channelOf,
  countPicks,
  type ChannelId,
  type HandPicks,
  type Layer,
  type PasteWay,
  type Scene,
  type Ticks,
} from '@wexikine/core';
import { inFamilies } from '../../fields/in-families';
import { Icon } from '../../icons/icon';
import { KeyEdits, type Pose } from './key-edits';
import { allKeys, grownToLayers, grownToPhase, inverted, withKeys, type KeyRow } from './key-rows';
import { PickDialog, type PickSource } from './pick-dialog';
import { spanOf } from './picks';

/** What can be done with keys besides dragging them: picked by a rule, posed, carried, copied and pasted. */
@Component({
  selector: 'wx-keys-menu',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, MatMenuModule],
  templateUrl: './keys-menu.html',
  host: { '(document:keydown)': 'pickAllByKey($event)' },
})
export class KeysMenu {
  readonly rows = input.required<readonly KeyRow[]>();
  /** As it stands, without a dry run. */
  readonly standing = input.required<Scene>();
  readonly time = input.required<Ticks>();
  readonly selected = input.required<Layer | null>();
  /** Ids of the layers that take part. */
  readonly taking = input.required<ReadonlySet<string>>();
  readonly canEdit = input.required<boolean>();
  /** The stretch of the picked keys is to be played alone. */
  readonly playWanted = output<{ readonly from: Ticks; readonly to: Ticks }>();

  protected readonly edits = inject(KeyEdits);
  private readonly dialog = inject(MatDialog);
  protected readonly picks = toSignal(this.edits.picks$, { requireSync: true });
  protected readonly clip = toSignal(this.edits.clip$, { requireSync: true });
  protected readonly count = computed(() => countPicks(this.picks()));
  protected readonly families = inFamilies(CHANNELS, ({ id }) => id);
  /** What was copied, where it is of one channel only. */
  protected readonly clipChannel = computed(() => {
    const own = new Set(this.clip()?.layers.flatMap(({ tracks }) => Object.keys(tracks) as ChannelId[]));
    return own.size === 1 ? channelOf([...own][0]).label : null;
  });

  protected pickAll(): void {
    this.edits.pick(withKeys(new Map(), allKeys(this.rows())));
  }

  /** Ctrl+A means the keys wherever the focus is, but in a field. */
  protected pickAllByKey(event: KeyboardEvent): void {
    const isMeant = (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'a';
    if (!isMeant || (event.target as Element).closest?.('input, textarea, .cm-editor, .cdk-overlay-container')) return;
    event.preventDefault();
    this.pickAll();
  }

  protected invert(): void {
    this.edits.pick(inverted(this.picks(), this.rows()));
  }

  protected pickByRule(): void {
    const layers = new Set(this.rows().flatMap(({ kind, layers }) => (kind === 'layer' ? [layers[0].id] : [])));
    this.dialog
      .open<PickDialog, PickSource, HandPicks>(PickDialog, { data: { scene: this.standing(), layers }, width: '400px' })
      .afterClosed()
      .subscribe((picks) => picks && this.edits.pick(picks));
  }

  protected grow(to: 'layers' | 'phase'): void {
    const grown = to === 'layers' ? grownToLayers : grownToPhase;
    this.edits.pick(grown(this.picks(), this.rows()));
  }

  protected pose(pose: Pose): void {
    if (this.canEdit()) this.edits.pose(pose, this.time(), this.taking());
  }

  protected playThese(): void {
    if (this.count() > 0) this.playWanted.emit(spanOf(this.picks()));
  }

  copy(event: ClipboardEvent): void {
    const text = isTyping(event) ? null : this.edits.copy();
    if (text === null) return;
    event.clipboardData?.setData('text/plain', text);
    event.preventDefault();
  }

  cut(event: ClipboardEvent): void {
    if (isTyping(event) || this.count() === 0) return;
    this.copy(event);
    if (this.canEdit()) this.edits.remove();
  }

  paste(event: ClipboardEvent): void {
    // Files are pictures, which the scene takes.
    if (isTyping(event) || (event.clipboardData?.files.length ?? 0) > 0) return;
    event.preventDefault();
    const clip = this.edits.take(event.clipboardData?.getData('text/plain') ?? '');
    if (clip) this.pasteAs(clip.layers.length > 1 || !this.selected() ? 'taking' : 'selected', 'playhead', 'absolute');
  }

  protected copyPicked(): void {
    const text = this.edits.copy();
    // Where the browser does not let the page write, the keys are kept here all the same.
    if (text !== null) void navigator.clipboard?.writeText(text).catch(() => undefined);
  }

  protected pasteAs(
    target: 'selected' | 'taking',
    at: 'playhead' | 'offset',
    values: PasteWay['values'],
    channel: ChannelId | null = null,
  ): void {
    if (!this.canEdit()) return;
    const own = this.selected();
    const onto = target === 'selected' ? (own ? [own.id] : []) : [...this.taking()];
    const where: PasteWay['at'] = at === 'offset' ? { by: 'offset' } : { by: 'time', time: Math.round(this.time()) };
    this.edits.pasteOnto(onto, { at: where, values, channel });
  }
}

function isTyping(event: Event): boolean {
  return event.target instanceof HTMLInputElement;
}
