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
  addParameter,
  CHANNEL_IDS,
  channelOf,
  channelsWords,
  compareItems,
  compileRig,
  compileRigs,
  createShelf,
  dialNumber,
  dialsPreset,
  dialText,
  drivenTrack,
  figuresWords,
  formatShort,
  frameTicks,
  freeName,
  linkedChannels,
  literalWords,
  moveParameter,
  PARAMETER_KINDS,
  parameterUses,
  removeParameter,
  renameRole,
  rigAsPreset,
  rigChannels,
  rigFigures,
  rigFromPreset,
  rigScope,
  setFormula,
  setFormulaChannels,
  solveDial,
  unitWords,
  type ChannelId,
  type LibraryItem,
  type Parameter,
  type ParameterKind,
  type Preset,
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
import { Knob } from '../fields/knob';
import { Icon } from '../icons/icon';
import { LibraryActions } from '../library/library-actions.service';
import { LibraryService } from '../library/library.service';
import { completionsFor, type Completion } from './completions';
import { DifferencesList } from './differences-list';
import { FormulaEditor } from './formula-editor';
import { ParameterForm } from './parameter-form';
import type { PresetChange } from './parameter-table';
import { RigMap } from './rig-map';
import { SpecimenView } from './specimen-view';

/** A change of a rig, with its name in the undo list. */
export interface RigChange {
  readonly label: string;
  readonly rig: Rig;
  readonly merge?: string;
}

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
    Knob,
    MatMenuModule,
    ParameterForm,
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
  protected readonly kinds = PARAMETER_KINDS;
  protected readonly motions = RIG_MOTIONS;
  protected readonly motionWords = MOTION_WORDS;
  protected readonly rig = computed(() => this.item().body);
  protected readonly asPreset = computed(() => rigAsPreset(this.rig()));
  protected readonly open = signal<string | null>(null);
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

  protected readonly dials = computed(() =>
    this.rig().dials.map((dial) => {
      const value = dialNumber(dial, dial.default, PAL);
      const from = dialNumber(dial, dial.from ?? dial.min, PAL);
      const to = dialNumber(dial, dial.to ?? dial.max, PAL);
      const isTurned = value !== null && from !== null && to !== null && dial.house === undefined;
      return {
        dial,
        value,
        from,
        to,
        isTurned,
        step: dialNumber(dial, dial.step, PAL),
        words: literalWords(dial.default),
      };
    }),
  );

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

  private readonly figuresNow = computed(() => {
    const isAnswering = /\b(arrival|chase)\b/.test(
      this.rig()
        .formulas.map(({ text }) => text)
        .join('\n'),
    );
    return isAnswering && compileRig(this.rig()).problems.length === 0 ? rigFigures(this.rig(), this.shelf()) : null;
  });
  protected readonly figures = computed(() => {
    const figures = this.figuresNow();
    return figures ? figuresWords(figures) : [];
  });
  protected readonly wished = signal<'passes' | 'settles'>('passes');
  protected readonly wishDial = linkedSignal(() => this.rig().dials[0]?.name ?? '');
  protected readonly wishProblem = signal<string | null>(null);

  protected readonly differences = computed(() => {
    const newest = this.newest();
    return newest ? compareItems(newest, this.item(), (id) => this.shelf().items.get(id)?.name ?? id) : [];
  });

  protected roleUses(name: string): boolean {
    return this.rig().formulas.some(({ text }) => new RegExp(`(?<![\\w.@])${name}\\.`).test(text));
  }

  protected timeWords(): string {
    const { from, to, scene } = this.specimen();
    return formatShort(to - from, scene.rate);
  }

  protected toggle(name: string): void {
    this.open.update((open) => (open === name ? null : name));
  }

  protected turn({ name, kind, label }: Parameter, value: number): void {
    const dials = this.rig().dials.map((dial) =>
      dial.name === name ? { ...dial, default: dialText({ kind }, value, PAL) } : dial,
    );
    this.give(`Turn ${label}`, { ...this.rig(), dials }, `turn ${name}`);
  }

  protected addDial(kind: ParameterKind): void {
    const preset = addParameter(this.asPreset(), kind);
    this.takePreset({ label: 'Add a dial', preset });
    this.open.set(preset.parameters[preset.parameters.length - 1].name);
  }

  protected moveDial({ name }: Parameter, by: number): void {
    this.takePreset({ label: `Move @${name}`, preset: moveParameter(this.asPreset(), name, by) });
  }

  /** Takes a dial away; where formulas read it, its default stands in for it. */
  protected removeDial({ name }: Parameter): void {
    const uses = parameterUses(this.asPreset(), name).length;
    this.takePreset({ label: `Remove @${name}`, preset: removeParameter(this.asPreset(), name) });
    if (uses > 0)
      this.actions.tell(
        `@${name} was read by ${uses === 1 ? 'one formula' : `${uses} formulas`}; its default stands there now.`,
      );
  }

  protected formChanged(change: PresetChange, renamedTo: string | null): void {
    this.takePreset(change);
    if (renamedTo !== null) this.open.set(renamedTo);
  }

  private takePreset({ label, preset, merge }: { label: string; preset: Preset; merge?: string }): void {
    this.give(label, rigFromPreset(this.rig(), preset), merge);
  }

  protected addRole(): void {
    const name = freeName('leader', ['each', 'before', ...this.rig().roles.map((role) => role.name)]);
    const roles = [...this.rig().roles, { name, note: '' }];
    this.give(`Add the part ${name}`, { ...this.rig(), roles });
  }

  protected renameRole(from: string, event: Event): void {
    const to = (event.target as HTMLInputElement).value;
    this.give(`Rename ${from}`, renameRole(this.rig(), from, to));
  }

  protected noteRole(name: string, event: Event): void {
    const note = (event.target as HTMLInputElement).value;
    const roles = this.rig().roles.map((role) => (role.name === name ? { ...role, note } : role));
    this.give(`Say what ${name} is`, { ...this.rig(), roles }, `note ${name}`);
  }

  protected removeRole(name: string): void {
    this.give(`Remove the part ${name}`, {
      ...this.rig(),
      roles: this.rig().roles.filter((role) => role.name !== name),
    });
  }

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

  /** Sets a dial by what one wants to see of the rig. */
  protected setByWish(text: string): void {
    const number = Number(text.replace(',', '.'));
    if (text.trim() === '' || !Number.isFinite(number) || number < 0) {
      return this.wishProblem.set('Write a number, such as 12.');
    }
    const figure = this.wished();
    const value = figure === 'passes' ? number / 100 : number;
    const solved = solveDial(this.rig(), this.shelf(), this.wishDial(), { figure, value });
    const dial = this.rig().dials.find(({ name }) => name === this.wishDial());
    if (solved === null || !dial) {
      return this.wishProblem.set(
        `${dial?.label ?? 'This dial'} cannot do that between its soft limits. Try another dial.`,
      );
    }
    this.wishProblem.set(null);
    const dials = this.rig().dials.map((one) => (one === dial ? { ...one, default: solved } : one));
    this.give(`Set ${dial.label} by what it does`, { ...this.rig(), dials });
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
