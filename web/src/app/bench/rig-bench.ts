import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { MatMenuModule } from '@angular/material/menu';
import {
  addFormula,
  CHANNEL_IDS,
  channelOf,
  channelsWords,
  compareItems,
  compileRig,
  compileRigs,
  createShelf,
  dialsPreset,
  drivenTrack,
  frameTicks,
  linkedChannels,
  rigChannels,
  rigScope,
  setFormula,
  setFormulaChannels,
  unitWords,
  type ChannelId,
  type LibraryItem,
  type Rate,
  type Rig,
  type RigItem,
  type SceneSummary,
  type Track,
} from '@wexikine/core';
import { ApiService } from '../api/api.service';
import { CurvePlotView } from '../drawing/curve-plot-view';
import { createSpecimen, type SpecimenStage } from '../drawing/specimen';
import { motionFor, RIG_MOTIONS, type RigMotion } from '../drawing/specimen-layers';
import { Icon } from '../icons/icon';
import { LibraryActions } from '../library/library-actions.service';
import { LibraryService } from '../library/library.service';
import { completionsFor, type Completion } from './completions';
import { DifferencesList } from './differences-list';
import { FormulaEditor } from './formula-editor';
import type { RigChange } from './rig-change';
import { RigDials } from './rig-dials';
import { RigEffect } from './rig-effect';
import { RigMap } from './rig-map';
import { SpecimenView } from './specimen-view';

/** A formula as the bench shows it. */
interface FormulaCard {
  readonly index: number;
  readonly channels: readonly ChannelId[];
  readonly words: string;
  readonly unit: string;
  readonly text: string;
  readonly problems: readonly string[];
  readonly completions: readonly Completion[];
  readonly track: Track | null;
  readonly behind: Track | null;
}

const PAL: Rate = { num: 25, den: 1 };
const MOTION_WORDS: Readonly<Record<RigMotion, string>> = {
  slide: 'a slide',
  step: 'a step',
  turn: 'a turn',
  grow: 'growing',
  still: 'no motion',
};

/** A rig on the bench: its dials and parts, a formula for each channel, a specimen that answers, and what hangs on what. */
@Component({
  selector: 'wx-rig-bench',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    CurvePlotView,
    DifferencesList,
    FormulaEditor,
    Icon,
    MatMenuModule,
    RigDials,
    RigEffect,
    RigMap,
    SpecimenView,
  ],
  templateUrl: './rig-bench.html',
  styleUrl: './rig-bench.scss',
})
export class RigBench {
  readonly item = input.required<RigItem>();
  /** Published revisions, newest first, to compare with. */
  readonly revisions = input.required<readonly LibraryItem[]>();
  /** Whether the comparison is open. */
  readonly isComparing = input.required<boolean>();
  readonly changed = output<RigChange>();

  private readonly api = inject(ApiService);
  private readonly actions = inject(LibraryActions);
  protected readonly shelf = toSignal(inject(LibraryService).shelf$, { initialValue: createShelf([]) });
  protected readonly rate = PAL;
  protected readonly motions = RIG_MOTIONS;
  protected readonly motionWords = MOTION_WORDS;
  protected readonly rig = computed(() => this.item().body);
  protected readonly share = signal<number | null>(null);
  protected readonly scenes = signal<readonly SceneSummary[]>([]);
  protected readonly stageName = signal<string | null>(null);
  private readonly stage = signal<SpecimenStage>({});
  protected readonly motion = linkedSignal(() => motionFor(this.rig()));
  protected readonly isRow = signal(false);

  private readonly fullStage = computed((): SpecimenStage => {
    const stage = this.stage();
    if (stage.kind === 'scene') return stage;
    return { motion: this.motion(), ...(this.isRow() ? { kind: 'row' as const } : {}) };
  });
  protected readonly specimen = computed(() => createSpecimen(this.item(), this.shelf(), this.fullStage()));
  private readonly newest = computed(
    () => this.revisions().find((item): item is RigItem => item.kind === 'rig') ?? null,
  );
  private readonly before = computed(() => {
    const newest = this.newest();
    return newest && newest.body !== this.rig() ? createSpecimen(newest, this.shelf(), this.fullStage()) : null;
  });
  protected readonly mark = computed(() => {
    const share = this.share();
    const { from, to } = this.specimen();
    return share === null ? null : from + (to - from) * share;
  });

  protected readonly cards = computed((): readonly FormulaCard[] => {
    const rig = this.rig();
    const { problems } = compileRig(rig);
    const [now, then] = [this.trackOf(this.specimen()), this.before() && this.trackOf(this.before()!)];
    return rig.formulas.map(({ channels, text }, index) => {
      const track = now(channels[0]);
      const behind = then?.(channels[0]) ?? null;
      return {
        index,
        channels,
        words: channelsWords(channels),
        unit: unitWords(channels[0]),
        text,
        // Channels that share a text share its problems.
        problems: [...new Set(problems.filter((one) => one.index === index).map(({ message }) => message))],
        completions: completionsFor(rigScope(rig, channels[0], text).scope, dialsPreset(rig)),
        track,
        behind: behind && JSON.stringify(behind) !== JSON.stringify(track) ? behind : null,
      };
    });
  });

  /** Channels that no formula gives yet, both axes together. */
  protected readonly choices = computed(() => {
    const taken = new Set(rigChannels(this.rig()));
    const seen = new Set<ChannelId>();
    return CHANNEL_IDS.flatMap((id) => {
      const linked = linkedChannels(id).filter((channel) => !taken.has(channel));
      const channels: readonly ChannelId[] = linked.length > 0 ? linked : [id];
      if (taken.has(id) || channels.some((channel) => seen.has(channel))) return [];
      for (const channel of channels) seen.add(channel);
      return [{ channels, label: channels.length > 1 ? id.replace(/\.[xy]$/, '') : channelOf(id).label }];
    });
  });

  protected readonly differences = computed(() => {
    const newest = this.newest();
    return newest ? compareItems(newest, this.item(), (id) => this.shelf().items.get(id)?.name ?? id) : [];
  });

  protected write(index: number, text: string): void {
    this.give('Change a formula', setFormula(this.rig(), index, text), `formula ${index}`);
  }

  protected addFormula(channels: readonly ChannelId[], label: string): void {
    this.give(`Drive ${label}`, addFormula(this.rig(), channels));
  }

  protected removeFormula(index: number): void {
    this.give('Remove a formula', setFormulaChannels(this.rig(), index, []));
  }

  /** Lets one more channel be driven by a formula, or one less. */
  protected flipChannels(card: FormulaCard, channels: readonly ChannelId[]): void {
    const has = channels.every((channel) => card.channels.includes(channel));
    const next = has ? card.channels.filter((id) => !channels.includes(id)) : [...card.channels, ...channels];
    if (next.length > 0) this.give('Change what a formula drives', setFormulaChannels(this.rig(), card.index, next));
  }

  protected setMotion(motion: RigMotion): void {
    this.stage.set({});
    this.stageName.set(null);
    this.motion.set(motion);
  }

  protected loadScenes(): void {
    void this.actions.ask(this.api.scenes()).then((scenes) => this.scenes.set(scenes ?? []));
  }

  protected async useScene({ id, name }: SceneSummary): Promise<void> {
    const stored = await this.actions.ask(this.api.scene(id));
    if (!stored) return;
    const keyed = stored.scene.layers.filter(({ tracks }) => Object.keys(tracks).length > 0);
    const layers = (keyed.length > 0 ? keyed : stored.scene.layers).map((layer) => layer.id);
    this.stage.set({ kind: 'scene', scene: { ...stored.scene, runs: [] }, pick: { by: 'layers', layers } });
    this.stageName.set(name);
  }

  private trackOf({ scene, from, to }: ReturnType<typeof createSpecimen>): (channel: ChannelId) => Track | null {
    const rigs = compileRigs(scene);
    return (channel) => {
      const index = scene.layers.findLastIndex((_, i) => rigs?.drives(i, channel) === true);
      return rigs && index >= 0 ? drivenTrack(rigs, index, channel, [from, to], frameTicks(scene.rate)) : null;
    };
  }

  private give(label: string, rig: Rig, merge?: string): void {
    this.changed.emit(merge === undefined ? { label, rig } : { label, rig, merge });
  }
}
