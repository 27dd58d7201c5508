import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { BLEND_MODES, isSeen, type Layer, type LayerLook } from '@wexikine/core';
import { LookPart } from '../../../looks/look-part';
import { common } from '../../../looks/looks';

type Matte = NonNullable<LayerLook['matte']>;

/** How layers are mixed with what lies behind them, and which other layer they are seen through. */
@Component({
  selector: 'wx-look-mix',
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './look-mix.html',
  styleUrl: '../../../looks/look.scss',
})
export class LookMix extends LookPart {
  /** All of the scene, among which a matte is chosen. */
  readonly all = input.required<readonly Layer[]>();
  protected readonly blends = BLEND_MODES;
  protected readonly blend = computed(() => common(this.layers(), ({ look }) => look.blend ?? 'normal'));
  protected readonly matte = computed(() => common(this.layers(), ({ look }) => look.matte ?? 'none'));
  protected readonly matteId = computed(() => this.ofMatte('layer'));
  protected readonly matteHow = computed(() => this.ofMatte('how'));
  protected readonly isMatteShown = computed(() => this.ofMatte('isShown') === true);
  protected readonly isByBrightness = computed(() => this.ofMatte('by') === 'brightness');
  /** Layers that can be mattes of the selected ones: none of these, and none that is seen through one of them. */
  protected readonly mattes = computed(() => {
    const own = new Set(this.layers().map(({ id }) => id));
    const byId = new Map(this.all().map((layer) => [layer.id, layer]));
    const isCircle = (layer: Layer): boolean => {
      const seen = new Set<string>();
      for (let at: Layer | undefined = layer; at && !seen.has(at.id); at = byId.get(at.look.matte?.layer ?? '')) {
        if (own.has(at.id)) return true;
        seen.add(at.id);
      }
      return false;
    };
    return this.all().filter((layer) => isSeen(layer) && !isCircle(layer));
  });

  private ofMatte<K extends keyof Matte>(part: K): Matte[K] | null {
    const matte = this.matte();
    return matte === null || matte === 'none' ? null : matte[part];
  }

  protected setBlend(mode: string): void {
    const blend = BLEND_MODES.find((one) => one === mode);
    this.setLooks('Set the blending', this.layers(), () => ({ blend }));
  }

  protected setMatte(id: string): void {
    const layer = this.mattes().find((one) => one.id === id);
    this.setLooks(layer ? 'Set the matte' : 'Take the matte away', this.layers(), ({ matte }) => ({
      matte: layer && { isShown: false, how: 'reveals', ...matte, layer: layer.id },
    }));
  }

  protected setMatteHow(how: Matte['how']): void {
    this.setLooks('Set the matte', this.layers(), ({ matte }) => ({ matte: matte && { ...matte, how } }));
  }

  protected setMatteBy(by: string): void {
    this.setLooks('Set the matte', this.layers(), ({ matte }) => {
      if (!matte) return {};
      const { by: _before, ...rest } = matte;
      return { matte: by === 'brightness' ? { ...rest, by } : rest };
    });
  }

  protected flipMatte(): void {
    const isShown = !this.isMatteShown();
    this.setLooks('Set the matte', this.layers(), ({ matte }) => ({ matte: matte && { ...matte, isShown } }));
  }
}
