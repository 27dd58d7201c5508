import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  model,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import {
  channelOf,
  compileRigs,
  isDialLayer,
  withDialLayers,
  type ChannelId,
  type Layer,
  type Scene,
  type Shelf,
  type Ticks,
} from '@wexikine/core';
import { Icon } from '../../icons/icon';
import { KeyEdits } from '../keys/key-edits';
import { drivenLayer } from '../sheet/driven';
import { leadingChannel, leadingDriven } from '../sheet/strip';
import type { TimeWindow } from '../sheet/time-window';
import { ViewSwitch, type SheetView } from '../sheet/view-switch';
import { CurveEditor } from './curve-editor';
import { nowWords, stepFigure } from './curve-figures';
import { curveChannels, MOST_OTHERS } from './curve-lines';
import type { CurveShow } from './curve-model';
import type { ValueRange } from './curve-shape';
import { CurveTools } from './curve-tools';

const SHOWN: readonly { readonly show: CurveShow; readonly label: string }[] = [
  { show: 'value', label: 'Value' },
  { show: 'speed', label: 'Speed' },
  { show: 'both', label: 'Both' },
];

/** Curves of the selected layer, and of all layers with picked keys behind it: in the panel, or with the sheet's room. */
@Component({
  selector: 'wx-curve-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CurveEditor, CurveTools, Icon, ViewSwitch],
  templateUrl: './curve-panel.html',
  styleUrl: './curve-panel.scss',
  host: { '[class.wide]': 'isWide()' },
})
export class CurvePanel {
  /** As it is drawn, with a dry run. */
  readonly scene = input.required<Scene>();
  readonly standing = input.required<Scene>();
  readonly layer = input.required<Layer | null>();
  readonly runId = input.required<string | null>();
  readonly shelf = input.required<Shelf>();
  readonly time = input.required<Ticks>();
  /** Whether the curve is that of a dry run. */
  readonly isDryRun = input(false);
  /** In the place of the run sheet, with its stretch of time. */
  readonly isWide = input(false);
  /** The stretch of time that is seen; null: what has keys, in the panel, or the whole scene. */
  readonly window = model<TimeWindow | null>(null);
  readonly tried = output<Scene | null>();
  readonly seek = output<number>();
  readonly told = output<string>();
  readonly viewWanted = output<SheetView>();

  private readonly edits = inject(KeyEdits);
  private readonly editor = viewChild(CurveEditor);
  protected readonly shows = SHOWN;
  protected readonly show = signal<CurveShow>('both');
  protected readonly isEach = signal(false);
  protected readonly isJoined = signal(true);
  protected readonly range = signal<ValueRange | null>(null);
  private readonly picks = toSignal(this.edits.told$, { requireSync: true });

  protected readonly rigs = computed(() => compileRigs(this.scene()));
  /** With a layer for each dial that has keys. */
  protected readonly keyScene = computed(() => withDialLayers(this.scene()));
  /** Whose curves are shown: those of the selected layer, or of a dial where only keys of dials are picked. */
  protected readonly shown = computed((): Layer | null => {
    const ids = [...this.picks().keys()];
    const [first] = ids;
    if (first === undefined || !ids.every(isDialLayer)) return this.layer();
    return this.keyScene().layers.find(({ id }) => id === first) ?? this.layer();
  });
  private readonly index = computed(() => this.keyScene().layers.findIndex(({ id }) => id === this.shown()?.id));
  protected readonly all = computed(() => curveChannels(this.shown(), this.index(), this.rigs()));
  private readonly layerId = computed(() => this.shown()?.id ?? null);
  /** Channels that were asked for; null: those of the picked keys, or the one that moves most. */
  private readonly wanted = signal<readonly ChannelId[] | null>(null);
  protected readonly channels = computed((): readonly ChannelId[] => {
    const [all, wanted] = [this.all(), this.wanted()?.filter((id) => this.all().includes(id)) ?? []];
    if (wanted.length > 0) return wanted;
    const picked = [
      ...(this.picks()
        .get(this.layerId() ?? '')
        ?.keys() ?? []),
    ];
    if (picked.length > 0) return all.filter((id) => picked.includes(id));
    const lead = this.leading();
    return lead === null ? [] : [lead];
  });
  private readonly leading = computed((): ChannelId | null => {
    const [layer, rigs, index] = [this.shown(), this.rigs(), this.index()];
    if (!layer) return null;
    const driven = rigs && index >= 0 ? drivenLayer(rigs, index) : null;
    return driven
      ? leadingDriven(driven, layer, { from: 0, span: this.scene().length })
      : leadingChannel(layer, this.runId());
  });
  /** In the panel the time that has keys is seen; in the sheet's place what the sheet shows. */
  private readonly own = linkedSignal<string, TimeWindow | null>({
    source: () => `${this.layerId()} ${this.all().join()}`,
    computation: () => this.keysWindow(),
  });
  protected readonly seen = computed(() => (this.isWide() ? this.window() : this.own()));
  private readonly lines = computed(() => this.editor()?.model.lines() ?? []);
  protected readonly figure = computed(() =>
    stepFigure(this.lines(), this.seen() ?? { from: 0, span: this.scene().length }, this.scene().rate),
  );
  protected readonly now = computed(() => nowWords(this.lines(), this.time()));
  protected readonly othersWords = computed(() => {
    const count = [...this.picks().keys()].filter((id) => id !== this.layerId()).length;
    if (count === 0) return '';
    const shown = Math.min(count, MOST_OTHERS);
    return shown < count ? `and ${shown} of ${count} other layers` : `and ${count} more`;
  });

  private keysWindow(): TimeWindow | null {
    const layer = this.shown();
    const times = Object.values(layer?.tracks ?? {}).flatMap((keys) => [keys[0].at, keys[keys.length - 1].at]);
    if (times.length === 0) return null;
    const [first, last] = [Math.min(...times), Math.max(...times)];
    if (last === first) return null;
    const air = (last - first) * 0.08;
    return { from: first - air, span: last - first + 2 * air };
  }

  protected look(window: TimeWindow | null): void {
    if (this.isWide()) this.window.set(window);
    else this.own.set(window);
  }

  protected label(id: ChannelId): string {
    const shown = this.shown();
    return shown && isDialLayer(shown.id) ? 'dial' : channelOf(id).label;
  }

  protected family(id: ChannelId): string {
    return channelOf(id).family.replace(' ', '-');
  }

  /** One channel alone; with Shift or Ctrl one more, or one less. */
  protected choose(id: ChannelId, event: MouseEvent): void {
    this.range.set(null);
    if (!event.shiftKey && !event.ctrlKey && !event.metaKey) return this.wanted.set([id]);
    const shown = this.channels();
    const next = shown.includes(id) ? shown.filter((one) => one !== id) : [...shown, id];
    this.wanted.set(next.length === 0 ? null : this.all().filter((one) => next.includes(one)));
  }

  protected chooseAll(): void {
    this.range.set(null);
    this.wanted.set(this.channels().length === this.all().length ? null : this.all());
  }

  protected fit(): void {
    this.editor()?.fit();
  }
}
