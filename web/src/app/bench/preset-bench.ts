import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { MatDialog } from '@angular/material/dialog';
import { MatMenuModule } from '@angular/material/menu';
import {
  channelOf,
  comparePresets,
  createShelf,
  curveFigures,
  describeFinding,
  figureWords,
  movementChannels,
  type ChannelId,
  type CreateItem,
  type LibraryItem,
  type Movement,
  type Preset,
  type PresetItem,
  type Rate,
  type Scene,
  type SceneSummary,
} from '@wexikine/core';
import { firstValueFrom } from 'rxjs';
import { ApiService } from '../api/api.service';
import { CurvePlotView } from '../drawing/curve-plot-view';
import { createSpecimen, type SpecimenStage } from '../drawing/specimen';
import type { SpecimenKind } from '../drawing/specimen-layers';
import { sceneLines } from '../fields/scene-lines';
import { LibraryActions } from '../library/library-actions.service';
import { LibraryService } from '../library/library.service';
import { commonestTag } from '../planning/free-layers';
import { DifferencesList } from './differences-list';
import { RecordDialog } from '../library/record-dialog';
import { HangingForm } from './hanging-form';
import { inspect } from './inspection';
import { MomentMatrix } from './moment-matrix';
import { MovementList } from './movement-list';
import { ParameterTable, type PresetChange } from './parameter-table';
import { SceneMenu } from './scene-menu';
import { SpecimenView } from './specimen-view';

const KIND_CHOICES: readonly { readonly kind: SpecimenKind; readonly label: string }[] = [
  { kind: 'card', label: 'card' },
  { kind: 'word', label: 'word' },
  { kind: 'picture', label: 'picture' },
  { kind: 'line', label: 'line' },
  { kind: 'row', label: '12 in a row' },
];

const PAL: Rate = { num: 25, den: 1 };

/** A preset on the bench: its parameters, its matrix, where it hangs, and a specimen that plays meanwhile. */
@Component({
  selector: 'wx-preset-bench',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    CurvePlotView,
    DifferencesList,
    HangingForm,
    MatMenuModule,
    MomentMatrix,
    MovementList,
    ParameterTable,
    SceneMenu,
    SpecimenView,
  ],
  templateUrl: './preset-bench.html',
  styleUrl: './preset-bench.scss',
})
export class PresetBench {
  readonly item = input.required<PresetItem>();
  /** Published revisions, newest first, to compare with. */
  readonly revisions = input.required<readonly LibraryItem[]>();
  /** Whether the comparison is open. */
  readonly isComparing = input.required<boolean>();
  readonly changed = output<PresetChange>();

  private readonly api = inject(ApiService);
  private readonly dialog = inject(MatDialog);
  private readonly actions = inject(LibraryActions);
  protected readonly shelf = toSignal(inject(LibraryService).shelf$, { initialValue: createShelf([]) });
  private readonly view = viewChild(SpecimenView);

  protected readonly kindChoices = KIND_CHOICES;
  protected readonly preset = computed(() => this.item().body);
  protected readonly stage = signal<SpecimenStage>({});
  protected readonly stageName = signal<string | null>(null);
  protected readonly stageTag = signal<string | null>(null);
  /** Tags of the scene that is the specimen. */
  protected readonly stageTags = computed(() => [
    ...new Set((this.stage().scene?.layers ?? []).flatMap(({ tags }) => tags)),
  ]);
  /** Movements that cannot be on the specimen's layers, by their labels, with the reason. */
  protected readonly troubles = computed(() => {
    const { plan, scene } = this.inspected();
    const found = plan.findings.flatMap((finding) => (finding.code === 'movement-trouble' ? [finding] : []));
    return new Map(found.map((finding) => [finding.movement, describeFinding(finding, scene)]));
  });
  /** Path layers of that scene, as lines that begin where a layer rests. */
  protected readonly lines = computed(() => sceneLines(this.stage().scene?.layers ?? []));
  protected readonly share = signal<number | null>(null);
  private readonly wantedChannel = signal<ChannelId | null>(null);

  protected readonly specimen = computed(() => createSpecimen(this.item(), this.shelf(), this.stage()));
  protected readonly rate = computed(() => this.specimen().scene.rate);
  /** Rows that are switched off are looked at as if they were on. */
  private readonly inspected = computed(() => {
    const item = this.item();
    const rows = item.body.rows.map(({ when: _when, ...row }) => row);
    const movements = item.body.movements?.map(({ when: _when, ...movement }) => movement as Movement);
    const body = { ...item.body, rows, ...(movements ? { movements } : {}) };
    return createSpecimen({ ...item, body }, this.shelf(), this.stage());
  });
  protected readonly inspection = computed(() => inspect(this.preset(), this.shelf(), this.inspected()));
  protected readonly parameterProblem = computed(() => this.inspection().parameterProblem);

  protected readonly channel = linkedSignal((): ChannelId | null => {
    const { movements = [], rows: own } = this.preset();
    const rows = [...movements.flatMap(movementChannels), ...own.map(({ channel }) => channel)];
    const wanted = this.wantedChannel();
    return wanted !== null && rows.includes(wanted) ? wanted : (rows[0] ?? null);
  });

  private readonly presetRevisions = computed(() =>
    this.revisions().filter((item): item is PresetItem => item.kind === 'preset'),
  );
  private readonly newestNumber = computed(() => this.presetRevisions()[0]?.revision ?? null);
  protected readonly comparedNumber = linkedSignal(this.newestNumber);
  protected readonly compared = computed(
    () => this.presetRevisions().find(({ revision }) => revision === this.comparedNumber()) ?? null,
  );
  protected readonly newest = computed(() => this.presetRevisions()[0]?.body ?? null);
  private readonly comparedSpecimen = computed(() => {
    const compared = this.compared();
    return compared && createSpecimen(compared, this.shelf(), this.stage());
  });

  /** The curve that is shown: of the first layer of the specimen, with rows that are switched off as if they were on. */
  protected readonly track = computed(() => this.trackIn(this.inspected()));
  protected readonly behind = computed(() => {
    const specimen = this.comparedSpecimen();
    const track = specimen && this.trackIn(specimen);
    return track && JSON.stringify(track) !== JSON.stringify(this.track()) ? track : null;
  });
  protected readonly mark = computed(() => {
    const share = this.share();
    const { from, to } = this.specimen();
    return share === null ? null : from + (to - from) * share;
  });

  protected readonly differences = computed(() => {
    const compared = this.compared();
    return compared ? comparePresets(compared.body, this.preset(), (id) => this.nameOf(id)) : [];
  });
  protected readonly figures = computed(() => {
    const [track, channel, specimen] = [this.track(), this.channel(), this.comparedSpecimen()];
    const before = specimen && this.trackIn(specimen);
    if (!track || !before || channel === null) return [];
    return figureWords(channel, curveFigures(before, this.rate()), curveFigures(track, this.rate()));
  });

  /** Space plays and pauses the specimen. */
  togglePlay(): void {
    this.view()?.toggle();
  }

  protected label(channel: ChannelId): string {
    return channelOf(channel).label;
  }

  protected setChannel(channel: ChannelId): void {
    this.wantedChannel.set(channel);
  }

  protected setKind(kind: SpecimenKind): void {
    this.stageName.set(null);
    this.stage.set({ kind, rate: this.stage().rate ?? PAL });
  }

  /** Layers of a scene as the specimen: those of its commonest tag, at its rate. */
  protected async useScene({ id }: SceneSummary): Promise<void> {
    const stored = await this.actions.ask(this.api.scene(id));
    if (stored) this.showScene(stored.scene, commonestTag(stored.scene));
  }

  protected setTag(event: Event): void {
    const { scene } = this.stage();
    if (scene) this.showScene(scene, (event.target as HTMLSelectElement).value);
  }

  private showScene(scene: Scene, tag: string | null): void {
    const all = { by: 'layers' as const, layers: scene.layers.map((layer) => layer.id) };
    this.stage.set({ kind: 'scene', scene, pick: tag === null ? all : { by: 'rule', tag } });
    this.stageName.set(scene.name);
    this.stageTag.set(tag);
  }

  protected isKind(kind: SpecimenKind): boolean {
    return this.specimen().kind === kind && this.stageName() === null;
  }

  /** Takes the keys of a layer as the preset's own moments and rows. */
  protected async record(): Promise<void> {
    const reference = this.dialog.open<RecordDialog, null, Preset>(RecordDialog, {
      data: null,
      width: '760px',
      maxWidth: '94vw',
    });
    const preset = await firstValueFrom(reference.afterClosed());
    if (preset) this.changed.emit({ label: 'Record from a layer', preset });
  }

  private trackIn({ scene, plan }: ReturnType<typeof createSpecimen>) {
    const channel = this.channel();
    const id = plan.layers[0]?.layer;
    const track = scene.layers.find((layer) => layer.id === id)?.tracks[channel ?? 'opacity'];
    return channel === null ? null : (track ?? null);
  }

  private nameOf(id: string): string {
    return this.shelf().items.get(id)?.name ?? id;
  }
}

/** What the bench changes of a preset. */
export type PresetContent = Extract<CreateItem['content'], { kind: 'preset' }>;
