import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import {
  applyTimeEntry,
  describeEntryProblem,
  formatShort,
  pacedClip,
  parseTimeEntry,
  splitClip,
  type ClipSource,
  type Layer,
  type Rate,
  type Ticks,
} from '@wexikine/core';
import { NumberField } from '../../fields/number-field';
import { ValueField } from '../../fields/value-field';
import { Icon } from '../../icons/icon';
import type { LayerStep } from '../../looks/layer-step';
import { SceneStore } from '../scene.store';

const newId = (): string => `layer-${crypto.randomUUID().slice(0, 18)}`;

/** A clip: from where in its file it is played, how fast, and what comes at its end; cut and frozen at the playhead. */
@Component({
  selector: 'wx-layer-clip',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, NumberField, ValueField],
  templateUrl: './layer-clip.html',
  styleUrl: '../../looks/look.scss',
  styles: `
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 12px;
      align-items: end;
      margin-bottom: 8px;
    }
    .row > :is(wx-value-field, wx-number-field) {
      width: 132px;
    }
  `,
})
export class LayerClip {
  readonly layer = input.required<Layer>();
  readonly rate = input.required<Rate>();
  /** Where the playhead stands. */
  readonly time = input.required<Ticks>();
  readonly step = output<LayerStep>();
  /** The layer that a cut made. */
  readonly selected = output<string>();

  private readonly store = inject(SceneStore);
  protected readonly problem = signal<string | null>(null);
  protected readonly source = computed(() => this.layer().source as ClipSource);
  protected readonly pace = computed(() => Math.round(this.source().pace * 1000) / 10);
  protected readonly isByKeys = computed(() => this.layer().tracks['clip.time'] !== undefined);
  protected readonly about = computed(() => {
    const { width, height, length } = this.source();
    return `${width} × ${height} px, ${this.text(length)} long`;
  });
  protected readonly check = (text: string): string | null => {
    const entry = parseTimeEntry(text, this.rate());
    return entry.ok ? null : describeEntryProblem(entry.problem, this.rate());
  };

  protected text(at: Ticks): string {
    return formatShort(at, this.rate());
  }

  protected setFrom(text: string): void {
    const entry = parseTimeEntry(text, this.rate());
    if (!entry.ok) return;
    const { from, length } = this.source();
    const next = Math.min(length - 1, Math.max(0, applyTimeEntry(entry.entry, from)));
    this.set('Trim', { source: { ...this.source(), from: next } });
  }

  protected setPace(percent: number): void {
    const paced = pacedClip(this.layer(), percent / 100, this.store.scene?.length ?? this.layer().span.out);
    if (paced) this.set('Set the pace of', paced);
  }

  protected flipLoop(): void {
    const { loops, ...plain } = this.source();
    this.set(loops === true ? 'Play once' : 'Loop', { source: loops === true ? plain : { ...plain, loops: true } });
  }

  /** Cuts the clip at the playhead; frozen, the second part holds the frame there. */
  protected split(isFrozen: boolean): void {
    const { scene } = this.store;
    if (!scene) return;
    const result = splitClip(scene, this.layer().id, this.time(), isFrozen, newId);
    this.problem.set(result.ok ? null : result.message);
    if (!result.ok) return;
    this.step.emit({ label: `${isFrozen ? 'Freeze' : 'Split'} “${this.layer().name}”`, edits: result.edits });
    const [second] = result.selected;
    if (second !== undefined) this.selected.emit(second);
  }

  private set(verb: string, fields: Partial<Pick<Layer, 'span' | 'source'>>): void {
    const { id, name } = this.layer();
    this.problem.set(null);
    this.step.emit({ label: `${verb} “${name}”`, edits: [{ type: 'set-layer', layer: id, fields }] });
  }
}
