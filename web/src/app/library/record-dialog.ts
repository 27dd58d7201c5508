import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import {
  channelOf,
  describeEntryProblem,
  formatShort,
  literalWords,
  nameFrom,
  parseTimeEntry,
  PHASES,
  recordedValues,
  recordingOf,
  recordPreset,
  type ChannelId,
  type Distances,
  type Layer,
  type Phase,
  type Preset,
  type RecordOptions,
  type Scene,
  type SceneSummary,
} from '@wexikine/core';
import { ApiService } from '../api/api.service';
import { LibraryActions } from './library-actions.service';

/** A layer that is recorded from right away; without one it is chosen first. */
export interface RecordSource {
  readonly scene: Scene;
  readonly layer: string;
}

const DISTANCES: readonly { readonly value: Distances; readonly label: string }[] = [
  { value: 'px', label: 'in pixels' },
  { value: 'layer', label: 'in shares of the layer’s size' },
  { value: 'frame', label: 'in shares of the frame' },
];

/** Takes the keys of one layer as a preset: which channels, over which time, and which values become parameters. */
@Component({
  selector: 'wx-record-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatDialogModule],
  templateUrl: './record-dialog.html',
  styleUrl: './record-dialog.scss',
})
export class RecordDialog {
  private readonly api = inject(ApiService);
  private readonly actions = inject(LibraryActions);
  private readonly reference = inject(MatDialogRef<RecordDialog, Preset>);
  private readonly source = inject<RecordSource | null>(MAT_DIALOG_DATA);

  protected readonly phases = PHASES;
  protected readonly distanceChoices = DISTANCES;
  protected readonly scenes = signal<readonly SceneSummary[]>([]);
  protected readonly scene = signal<Scene | null>(this.source?.scene ?? null);
  protected readonly isGiven = this.source !== null;
  protected readonly timeProblem = signal<string | null>(null);

  /** Layers that have keys to record. */
  protected readonly layers = computed(
    () => this.scene()?.layers.filter((layer) => recordingOf(layer) !== null) ?? ([] as Layer[]),
  );
  protected readonly layerId = linkedSignal((): string | null => this.source?.layer ?? this.layers()[0]?.id ?? null);
  protected readonly layer = computed(() => this.layers().find(({ id }) => id === this.layerId()) ?? null);
  /** What is taken: first what the keys look like, then what was chosen. */
  protected readonly options = linkedSignal((): RecordOptions | null => {
    const layer = this.layer();
    const recording = layer && recordingOf(layer);
    return recording && { ...recording, parameters: {} };
  });
  protected readonly channels = computed(() => Object.keys(this.layer()?.tracks ?? {}) as ChannelId[]);
  protected readonly values = computed(() => {
    const [scene, layer, options] = [this.scene(), this.layer(), this.options()];
    return scene && layer && options ? recordedValues(layer, scene, options) : [];
  });

  constructor() {
    if (!this.source) void this.loadScenes();
  }

  protected label(channel: ChannelId): string {
    return channelOf(channel).label;
  }

  protected words(text: string): string {
    return literalWords(text);
  }

  protected time(ticks: number): string {
    const scene = this.scene();
    return scene ? formatShort(ticks, scene.rate) : '';
  }

  protected async chooseScene(event: Event): Promise<void> {
    const id = (event.target as HTMLSelectElement).value;
    const stored = await this.actions.ask(this.api.scene(id));
    this.scene.set(stored?.scene ?? null);
  }

  protected set(fields: Partial<RecordOptions>): void {
    this.options.update((options) => options && { ...options, ...fields });
  }

  protected setPhase(event: Event): void {
    this.set({ phase: (event.target as HTMLSelectElement).value as Phase });
  }

  protected setDistances(event: Event): void {
    this.set({ distances: (event.target as HTMLSelectElement).value as Distances, parameters: {} });
  }

  protected setTime(end: 'from' | 'to', event: Event): void {
    const scene = this.scene();
    if (!scene) return;
    const result = parseTimeEntry((event.target as HTMLInputElement).value, scene.rate);
    this.timeProblem.set(result.ok ? null : describeEntryProblem(result.problem, scene.rate));
    if (result.ok) this.set({ [end]: result.entry.ticks, parameters: {} });
  }

  protected toggleChannel(channel: ChannelId): void {
    const channels = this.options()?.channels ?? [];
    const next = channels.includes(channel) ? channels.filter((id) => id !== channel) : [...channels, channel];
    this.set({ channels: next });
  }

  protected nameOf(key: string): string {
    return this.options()?.parameters[key] ?? '';
  }

  protected nameValue(key: string, label: string): void {
    const parameters = { ...this.options()?.parameters };
    if (label.trim() === '') delete parameters[key];
    else parameters[key] = label.trim();
    this.set({ parameters });
  }

  protected record(): void {
    const [scene, layer, options] = [this.scene(), this.layer(), this.options()];
    if (scene && layer && options) this.reference.close(recordPreset(layer, scene, options, nameFrom));
  }

  private async loadScenes(): Promise<void> {
    const scenes = await this.actions.ask(this.api.scenes());
    this.scenes.set(scenes ?? []);
    const [first] = scenes ?? [];
    if (!first) return;
    const stored = await this.actions.ask(this.api.scene(first.id));
    this.scene.set(stored?.scene ?? null);
  }
}
