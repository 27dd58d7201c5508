import { Directive, computed, input, output, signal } from '@angular/core';
import {
  clampToChannel,
  oklabFromCss,
  restValue,
  type ChannelId,
  type Edit,
  type Layer,
  type LayerLook,
} from '@wexikine/core';
import { enterMany } from '../fields/many-entry';
import { channelOf, formatChannelValue } from '@wexikine/core';
import type { LayerStep } from './layer-step';
import { common, lookEdits, restEdits } from './looks';

/** A look with parts set to others, or taken away. */
export type LookChange = { readonly [Part in keyof LayerLook]: LayerLook[Part] | undefined };

/** What every part of the look panel has: the selected layers, steps on all of them, and what is wrong with an entry. */
@Directive()
export abstract class LookPart {
  /** As they stand. */
  readonly layers = input.required<readonly Layer[]>();
  readonly step = output<LayerStep>();
  protected readonly problem = signal<string | null>(null);
  protected readonly what = computed(() => {
    const { length } = this.layers();
    return length === 1 ? `“${this.layers()[0].name}”` : `${length} layers`;
  });

  protected valueOf(event: Event): string {
    return (event.target as HTMLInputElement).value;
  }

  /** Text of a rest value of some layers, which can be typed back; empty where they differ. */
  protected channelText(layers: readonly Layer[], id: ChannelId): string {
    const value = common(layers, (layer) => restValue(layer, id));
    return value === null ? '' : formatChannelValue(id, value).replace('−', '-');
  }

  /** Sets a rest value on layers, each within what the channel can draw: to what was typed, or by it. */
  protected setChannel(layers: readonly Layer[], id: ChannelId, text: string): void {
    const change = enterMany(text);
    const { label, unit } = channelOf(id);
    if (!change)
      return this.problem.set(`Write a number such as ${unit === 'share' ? '50 %' : '4'}, or +2 to change each.`);
    const scale = unit === 'share' ? 100 : 1;
    this.do(
      `Set ${label}`,
      restEdits(layers, id, (value) => clampToChannel(id, change(value * scale) / scale)),
    );
  }

  protected setLooks(label: string, layers: readonly Layer[], change: (look: LayerLook) => LookChange): void {
    this.do(label, lookEdits(layers, change));
  }

  protected isColour(text: string): boolean {
    const isFine = text.trim() === 'none' || oklabFromCss(text.trim()) !== null;
    this.problem.set(
      isFine
        ? null
        : `“${text.slice(0, 30)}” is not a colour. Write one such as #f3c98b or oklch(70% 0.1 80), or none.`,
    );
    return isFine;
  }

  protected do(label: string, edits: readonly Edit[]): void {
    this.problem.set(null);
    if (edits.length > 0) this.step.emit({ label: `${label} of ${this.what()}`, edits });
  }
}
