import type { LayerStep } from '../../looks/layer-step';
import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import {
  applyTimeEntry,
  CHANNELS,
  channelOf,
  layerEdits,
  withAnchor,
  describeEntryProblem,
  formatChannelValue,
  formatShort,
  parseTimeEntry,
  restValue,
  sampleTrack,
  tracksOf,
  type ChannelId,
  type Edit,
  type Layer,
  type Rate,
  type Scene,
  type Ticks,
} from '@wexikine/core';
import { ValueField } from '../../fields/value-field';
import { channelCheck, readChannelValue } from './hand-key';
import { HandKeys } from './hand-keys';
import { LayerData } from './layer-data';
import { LayerLookPanel } from './look/layer-look';
import { LayerSound } from '../sound/layer-sound';
import { LayerClip } from './layer-clip';
import { LayerPicture } from './layer-picture';
import { LayerPath } from './layer-path';
import { LayerShape } from './layer-shape';
import { sceneLines } from '../../fields/scene-lines';

/** Channels whose rest value is always shown; others only where the layer states one. */
const ALWAYS: readonly ChannelId[] = [
  'position.x',
  'position.y',
  'anchor.x',
  'anchor.y',
  'scale.x',
  'scale.y',
  'rotation',
  'opacity',
];

/** Shown text of a rest value, which can be typed back: shares as per cent. */
function restText(layer: Layer, id: ChannelId): string {
  return formatChannelValue(id, restValue(layer, id)).replace('−', '-');
}

/** "9 keys on 3 channels". */
function keysWords(layer: Layer | null): string {
  const tracks = layer ? tracksOf(layer) : [];
  const keys = tracks.reduce((sum, [, list]) => sum + list.length, 0);
  if (keys === 0) return 'No keys.';
  return `${keys === 1 ? '1 key' : `${keys} keys`} on ${tracks.length === 1 ? '1 channel' : `${tracks.length} channels`}.`;
}

/** Name, tags, span, rest pose, data and hand keys of the selected layer. */
@Component({
  selector: 'wx-layer-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    HandKeys,
    LayerClip,
    LayerData,
    LayerLookPanel,
    LayerPath,
    LayerShape,
    LayerPicture,
    LayerSound,
    ValueField,
  ],
  templateUrl: './layer-panel.html',
  styleUrl: './layer-panel.scss',
})
export class LayerPanel {
  /** The layer as it is drawn, with a dry run. */
  readonly layer = input.required<Layer | null>();
  /** The same layer as it stands: what is set here is set in the scene, whatever a dry run shows. */
  readonly standing = input.required<Layer | null>();
  /** Data columns of the scene. */
  readonly columns = input.required<readonly string[]>();
  readonly scene = input.required<Pick<Scene, 'layers' | 'width' | 'cues'>>();
  readonly time = input.required<Ticks>();
  readonly rate = input.required<Rate>();
  /** Whether a dry run is shown: then the layer can be looked at as planned, too. */
  readonly isDryRun = input(false);
  /** All selected layers as they stand; their look is set together. */
  readonly selection = input<readonly Layer[]>([]);
  /** A layer that is to be selected instead. */
  readonly selected = output<string>();
  readonly step = output<LayerStep>();
  readonly record = output<Layer>();

  protected readonly lines = computed(() => sceneLines(this.scene().layers));
  private readonly wantsPlanned = signal(false);
  protected readonly isPlanned = computed(() => this.isDryRun() && this.wantsPlanned());
  protected readonly keysText = computed(() => keysWords(this.isPlanned() ? this.layer() : this.standing()));
  /** The layer as the dry run would leave it: its span, and what its keyed channels are at the playhead. */
  protected readonly planned = computed(() => {
    const layer = this.layer();
    if (!layer) return null;
    const [from, to] = [layer.span.in, layer.span.out].map((at) => formatShort(at, this.rate()));
    const values = tracksOf(layer).map(([id, keys]) => ({
      id,
      label: channelOf(id).label,
      text: formatChannelValue(id, sampleTrack(keys, this.time())),
    }));
    return { span: `${from} to ${to}`, at: formatShort(this.time(), this.rate()), values };
  });

  protected show(isPlanned: boolean): void {
    this.wantsPlanned.set(isPlanned);
  }

  protected readonly rest = computed(() => {
    const layer = this.standing();
    if (!layer) return [];
    return CHANNELS.filter(({ id }) => ALWAYS.includes(id) || layer.rest[id] !== undefined).map(({ id, label }) => ({
      id,
      label,
      text: restText(layer, id),
      check: channelCheck(id),
    }));
  });

  protected readonly isSound = computed(() => this.standing()?.kind === 'sound');
  protected readonly inText = computed(() => formatShort(this.standing()?.span.in ?? 0, this.rate()));
  protected readonly outText = computed(() => formatShort(this.standing()?.span.out ?? 0, this.rate()));

  protected readonly checkIn = (text: string): string | null => this.checkSpan('in', text);
  protected readonly checkOut = (text: string): string | null => this.checkSpan('out', text);

  protected rename(event: Event): void {
    const name = (event.target as HTMLInputElement).value.trim();
    const layer = this.standing();
    if (layer && name !== '' && name !== layer.name) this.set(`Rename “${layer.name}” to “${name}”`, { name });
  }

  protected retag(event: Event): void {
    const text = (event.target as HTMLInputElement).value;
    const tags = [
      ...new Set(
        text
          .split(',')
          .map((tag) => tag.trim())
          .filter((tag) => tag !== ''),
      ),
    ];
    const layer = this.standing();
    if (layer && tags.join() !== layer.tags.join()) this.set(`Tag “${layer.name}”`, { tags });
  }

  protected flip(what: 'locked' | 'hidden'): void {
    const layer = this.standing();
    if (!layer) return;
    const verb = what === 'locked' ? (layer.locked ? 'Unlock' : 'Lock') : layer.hidden ? 'Show' : 'Hide';
    this.set(`${verb} “${layer.name}”`, { [what]: !layer[what] });
  }

  protected setSpan(side: 'in' | 'out', text: string): void {
    const layer = this.standing();
    const entry = parseTimeEntry(text, this.rate());
    if (!layer || !entry.ok) return;
    const time = applyTimeEntry(entry.entry, layer.span[side]);
    if (time === layer.span[side]) return;
    this.set(`Set the ${side} point of “${layer.name}”`, { span: { ...layer.span, [side]: time } });
  }

  protected setRest(id: ChannelId, text: string): void {
    const layer = this.standing();
    const value = readChannelValue(id, text);
    if (!layer || value === null || value === restValue(layer, id)) return;
    const label = `Set ${channelOf(id).label} of “${layer.name}”`;
    if (id !== 'anchor.x' && id !== 'anchor.y') return this.set(label, { rest: { ...layer.rest, [id]: value } });
    // Moving the anchor keeps the picture where it is, keyed or not.
    this.step.emit({ label, edits: layerEdits(layer, withAnchor(layer, id, value)) });
  }

  private set(label: string, fields: Extract<Edit, { type: 'set-layer' }>['fields']): void {
    const layer = this.standing();
    if (layer) this.step.emit({ label, edits: [{ type: 'set-layer', layer: layer.id, fields }] });
  }

  private checkSpan(side: 'in' | 'out', text: string): string | null {
    const entry = parseTimeEntry(text, this.rate());
    if (!entry.ok) return describeEntryProblem(entry.problem, this.rate());
    const span = this.standing()?.span;
    if (!span) return null;
    const next = { ...span, [side]: applyTimeEntry(entry.entry, span[side]) };
    return next.out > next.in ? null : 'A layer must end after it begins.';
  }
}
