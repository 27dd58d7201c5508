import { ticksFromSeconds, type Ticks } from '../../basics/time';
import type { Edit } from '../../scene/edit';
import type { Layer } from '../../scene/layer';
import { clipTimeAt } from '../../scene/sample';
import type { Scene } from '../../scene/scene';
import { copiesOf } from './copies';
import type { StageResult } from './nesting';

/**
 * A clip cut in two at a time of the scene: the first part ends there, the second, a layer of its own above it, begins there
 * with the frame that comes next; `isFrozen` holds that frame to the end. What is seen stays the same where it is only cut.
 */
export function splitClip(scene: Scene, id: string, at: Ticks, isFrozen: boolean, newId: () => string): StageResult {
  const index = scene.layers.findIndex((layer) => layer.id === id);
  const layer = scene.layers[index];
  if (layer?.source.type !== 'clip') return { ok: false, message: 'Select a clip: pictures that move can be cut.' };
  const { span, source } = layer;
  if (at <= span.in || at >= span.out)
    return { ok: false, message: `The playhead does not stand within “${layer.name}”. Put it where the cut is to be.` };
  if (layer.tracks['clip.time'])
    return {
      ok: false,
      message: `Keys say the time in “${layer.name}”. Clear those first, or set a key here instead.`,
    };
  const [copy] = copiesOf([layer], new Set([id]), { x: 0, y: 0 }, new Set(scene.layers.map(({ name }) => name)), newId);
  const second: Layer = {
    ...copy,
    span: { in: at, out: span.out },
    source: { ...source, from: ticksFromSeconds(clipTimeAt(layer, at) ?? 0), ...(isFrozen ? { pace: 0 } : {}) },
  };
  const edits: Edit[] = [
    { type: 'set-layer', layer: id, fields: { span: { in: span.in, out: at } } },
    { type: 'add-layer', index: index + 1, layer: second },
  ];
  return { ok: true, edits, selected: [second.id] };
}

/** A clip played at another pace, which then ends as much later or earlier as it takes, within its scene. */
export function pacedClip(layer: Layer, pace: number, length: Ticks): Pick<Layer, 'source' | 'span'> | null {
  const { source, span } = layer;
  if (source.type !== 'clip') return null;
  const paced = { ...source, pace };
  if (pace === 0 || source.pace === 0) return { source: paced, span };
  const lasts = Math.max(1, Math.round(((span.out - span.in) * source.pace) / pace));
  return { source: paced, span: { in: span.in, out: Math.min(span.in + lasts, Math.max(length, span.in + 1)) } };
}
