import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output, signal } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import {
  channelsWords,
  dialText,
  retuneRig,
  rigIn,
  type RigRecipe,
  type RunRecord,
  type Scene,
  type Shelf,
} from '@wexikine/core';
import { Icon } from '../../icons/icon';
import type { DialChange } from '../actions/dial-actions';
import { VariantView } from '../dialogs/variant-view';
import { keyBeside, ownDials, rigWords, settingWords, sharedWords } from './dial-facts';
import { DialRow } from './dial-row';
import { dialRow, hasKeyAt, keyed, pasted, reset, rigRuns, turned, unkeyed, type DialRow as Row } from './dial-rows';

/** Larger scenes are not drawn three times over. */
const MOST_LAYERS = 400;

/** A dial's extreme as a scene of its own. */
interface Extreme {
  readonly words: string;
  readonly scene: Scene;
}

/** The dials of the rigs of a scene: one set for a whole run, or for one layer that breaks away. */
@Component({
  selector: 'wx-dials-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DialRow, Icon, MatMenuModule, VariantView],
  templateUrl: './dials-panel.html',
  styleUrl: './dials-panel.scss',
})
export class DialsPanel {
  readonly scene = input.required<Scene>();
  readonly selected = input.required<string | null>();
  readonly shelf = input.required<Shelf>();
  readonly time = input.required<number>();
  readonly changed = output<DialChange>();
  readonly seek = output<number>();
  readonly rigWanted = output();
  /** Layers whose rig is to become keys. */
  readonly keysWanted = output<readonly string[]>();

  protected readonly runs = computed(() => rigRuns(this.scene().runs, this.selected()));
  private readonly wanted = signal<string | null>(null);
  protected readonly run = computed(() => {
    const runs = this.runs();
    return runs.find(({ id }) => id === this.wanted()) ?? runs[0] ?? null;
  });
  protected readonly recipe = computed((): RigRecipe | null => {
    const recipe = this.run()?.recipe;
    return recipe?.operation === 'rig' ? recipe : null;
  });
  protected readonly rig = computed(() => {
    const run = this.run();
    return run?.rig ? rigIn(run.rig.body) : null;
  });
  /** The selected layer, where the rig is on it. */
  protected readonly layer = computed(() => {
    const [run, selected] = [this.run(), this.selected()];
    return run && selected !== null && run.layers.includes(selected)
      ? (this.scene().layers.find(({ id }) => id === selected) ?? null)
      : null;
  });
  protected readonly isAlone = linkedSignal<string | null, boolean>({
    source: this.selected,
    computation: () => false,
  });
  private readonly whom = computed(() => ({ layer: this.isAlone() ? (this.layer()?.id ?? null) : null }));
  protected readonly rate = computed(() => this.scene().rate);
  protected readonly rows = computed((): readonly Row[] => {
    const [rig, recipe] = [this.rig(), this.recipe()];
    if (!rig || !recipe) return [];
    return rig.dials.map((dial) => {
      const row = dialRow(dial, recipe, this.whom(), this.time(), this.rate());
      return { ...row, words: settingWords(row, this.scene(), this.shelf()) };
    });
  });
  /** Dials that the selected layer has of its own. */
  protected readonly own = computed(() => {
    const [layer, recipe, rig] = [this.layer(), this.recipe(), this.rig()];
    return rig && recipe ? ownDials(rig, recipe, layer?.id ?? null) : [];
  });
  /** How many layers share all of the run's dials. */
  protected readonly shared = computed(() => {
    const [run, recipe] = [this.run(), this.recipe()];
    return run && recipe ? sharedWords(run, recipe) : '';
  });
  protected readonly title = computed(() => {
    const { rig } = this.run() ?? {};
    return rig ? `${rig.name}, on ${channelsWords(rig.channels)}` : '';
  });
  /** What the rig does with its dials as they are for all, in words; nothing where it answers no motion. */
  protected readonly figures = computed(() => {
    const rig = this.rig();
    return rig ? rigWords(rig, this.shelf(), this.rows()) : '';
  });

  protected readonly tried = signal<string | null>(null);
  protected readonly canTry = computed(() => this.scene().layers.length <= MOST_LAYERS);
  private copied: RigRecipe['parameters'] | null = null;
  protected readonly hasCopy = signal(false);

  /** The scene with the tried dial as it is, at its most and at its least. */
  protected readonly extremes = computed((): readonly Extreme[] => {
    const row = this.rows().find(({ dial }) => dial.name === this.tried());
    const [recipe, run] = [this.recipe(), this.run()];
    if (!row || !recipe || !run || row.value === null || !this.canTry()) return [];
    const { dial, from, to } = row;
    const label = dial.label.toLowerCase();
    const trials: readonly (readonly [string, string])[] = [
      ['as it is', row.text],
      [`${label} at its most`, dialText(dial, to, this.rate())],
      [`${label} at its least`, dialText(dial, from, this.rate())],
    ];
    return trials.flatMap(([words, text], i) => {
      if (i === 0) return [{ words, scene: this.scene() }];
      const next = turned(recipe, row, this.whom(), text, this.time(), this.rate());
      const tuned = retuneRig(this.scene(), this.shelf(), run.id, next, { by: run.by, when: run.when });
      if (!tuned.ok) return [];
      const runs = this.scene().runs.map((one) => (one.id === run.id ? tuned.run : one));
      return [{ words, scene: { ...this.scene(), runs } }];
    });
  });

  protected choose(event: Event): void {
    this.wanted.set((event.target as HTMLSelectElement).value);
  }

  protected runName({ rig, layers }: RunRecord): string {
    return `${rig?.name ?? 'Rig'} on ${layers.length === 1 ? '1 layer' : `${layers.length} layers`}`;
  }

  protected turn(row: Row, value: number): void {
    this.setText(row, dialText(row.dial, value, this.rate()), 'turn');
  }

  protected setText(row: Row, text: string, how: 'turn' | 'type' = 'type'): void {
    const recipe = this.recipe();
    if (!recipe) return;
    const next = turned(recipe, row, this.whom(), text, this.time(), this.rate());
    const whose = this.whom().layer === null ? '' : ` of “${this.layer()?.name ?? ''}”`;
    this.give(next, `Turn ${row.dial.label}${whose}`, `${how} ${row.dial.name} ${this.whom().layer ?? ''}`);
  }

  protected isKeyHere({ dial }: Row): boolean {
    const recipe = this.recipe();
    return recipe !== null && hasKeyAt(recipe, dial.name, this.time(), this.rate());
  }

  protected flipKey(row: Row): void {
    const recipe = this.recipe();
    if (!recipe) return;
    const isHere = this.isKeyHere(row);
    const next = (isHere ? unkeyed : keyed)(recipe, row, this.time(), this.rate());
    this.give(next, `${isHere ? 'Take a key from' : 'Key'} ${row.dial.label}`);
  }

  /** To the next key of a dial, or the one before. */
  protected goToKey({ dial }: Row, direction: 1 | -1): void {
    const recipe = this.recipe();
    const at = recipe && keyBeside(recipe, dial.name, this.time(), direction);
    if (at !== null) this.seek.emit(at);
  }

  protected resetDial(row: Row): void {
    const recipe = this.recipe();
    if (recipe) this.give(reset(recipe, row.dial.name, this.whom()), `Reset ${row.dial.label}`);
  }

  protected join(): void {
    const [recipe, layer] = [this.recipe(), this.layer()];
    if (!recipe || !layer) return;
    const next = this.own().reduce((so, { name }) => reset(so, name, { layer: layer.id }), recipe);
    this.give(next, `“${layer.name}” joins the others`);
    this.isAlone.set(false);
  }

  protected copy(): void {
    this.copied = this.recipe()?.parameters ?? null;
    this.hasCopy.set(this.copied !== null);
  }

  protected paste(): void {
    const [recipe, rig] = [this.recipe(), this.rig()];
    if (recipe && rig && this.copied) this.give(pasted(recipe, rig.dials, this.copied), 'Paste dials');
  }

  protected tryExtremes({ dial }: Row): void {
    this.tried.update((tried) => (tried === dial.name ? null : dial.name));
  }

  private give(recipe: RigRecipe, label: string, merge?: string): void {
    const run = this.run();
    if (run) this.changed.emit({ run: run.id, recipe, label, ...(merge === undefined ? {} : { merge }) });
  }
}
