import { Injectable, computed, inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import {
  createShelf,
  findGoneFiles,
  isPresetRecipe,
  parametersFor,
  pickLayers,
  severityOf,
  solvedIn,
  stayingOut,
} from '@wexikine/core';
import { KeptFiles } from '../files/kept-files';
import { LibraryService } from '../library/library.service';
import { countsWords } from './counts-words';
import { DraftStore, keepsFromApplying } from './draft.store';
import type { SharePoint } from './preview/marks';

/** How the run in the sentence stands: who is picked, what was found, whether it can be applied, and in which words. */
@Injectable()
export class RunState {
  private readonly drafts = inject(DraftStore);
  readonly shown = toSignal(this.drafts.shown$, { requireSync: true });
  readonly draft = toSignal(this.drafts.draft$, { requireSync: true });
  readonly shelf = toSignal(inject(LibraryService).shelf$, { initialValue: createShelf([]) });

  private readonly progress = toSignal(this.drafts.progress$, { requireSync: true });
  /** Whether planning takes so long that it tells how far it has come. */
  readonly isLong = computed(() => this.progress() !== null);
  readonly planningWords = computed(() => {
    const share = this.progress();
    return share === null ? 'planning…' : `planning, ${Math.floor(share * 100)} % done…`;
  });

  private readonly kept = toSignal(inject(KeptFiles).names$, { requireSync: true });
  /** Files of the scene that are no longer kept. */
  private readonly gone = computed(() => {
    const [scene, kept] = [this.shown()?.standing, this.kept()];
    return scene && kept ? findGoneFiles(scene, kept) : [];
  });
  private readonly motion = toSignal(this.drafts.motion$, { requireSync: true });
  /** Of the dry run, or of the scene as it stands; looking at it in motion comes a little later. */
  readonly findings = computed(() => {
    const shown = this.shown();
    return [...(shown?.plan?.findings ?? []), ...this.motion(), ...this.gone()];
  });
  readonly cannotApply = computed(() => this.findings().some(keepsFromApplying));
  readonly isDraft = computed(() => this.findings().some(({ code }) => code === 'draft-preset'));
  readonly attention = computed(() => this.findings().filter((finding) => severityOf(finding) !== 'note').length);
  readonly count = computed(() => this.shown()?.plan?.counts.layers ?? this.pickedCount());
  /** What follows from the dry run; nothing from that of another operation, which may be shown a moment longer. */
  readonly solved = computed(() => {
    const plan = this.shown()?.plan;
    const isOfThis = plan?.run?.recipe.operation === this.draft()?.recipe.operation;
    return plan && isOfThis && plan.layers.length > 0 ? solvedIn(plan.layers) : null;
  });
  /** Number of the run that is open in the sentence. */
  readonly changing = computed(() => {
    const run = this.draft()?.run ?? null;
    const index = this.shown()?.standing.runs.findIndex(({ id }) => id === run) ?? -1;
    return index < 0 ? null : index + 1;
  });
  /** Said where the open run takes another revision than the one it used. */
  readonly updating = computed(() => {
    const [shown, draft] = [this.shown(), this.draft()];
    const before = shown?.standing.runs.find(({ id }) => id === draft?.run)?.preset;
    const after = shown?.plan?.run?.preset;
    if (!before || !after || before.id !== after.id || before.revision === after.revision) return '';
    return `, from revision ${before.revision} to ${after.revision} of ${after.name}`;
  });
  /** Also while it is being planned: then it is applied as soon as that is done. */
  readonly canApply = computed(() => {
    const shown = this.shown();
    if (!shown?.isLive || this.cannotApply() || this.count() === 0) return false;
    return shown.isPlanning || shown.plan?.hasEdits === true;
  });
  readonly applyLabel = computed(() => {
    const shown = this.shown();
    if (this.isDraft()) return 'Publish it to apply';
    if (this.changing() !== null && shown?.isLive === true) {
      return shown?.isLive && !shown.isPlanning && shown.plan?.run && !shown.plan.hasEdits
        ? 'No change'
        : `Change ${this.count()}`;
    }
    if (this.draft()?.isApplied === true) return 'Applied';
    return shown?.isLive ? `Apply to ${this.count()}` : `Dry run on ${this.count()}`;
  });
  /** Whether the button asks for a dry run: nothing is shown of the sentence yet. */
  readonly isWaiting = computed(() => this.shown()?.isLive !== true && this.draft()?.isApplied !== true);
  readonly canVary = computed(() => {
    const recipe = this.draft()?.recipe;
    return recipe !== undefined && isPresetRecipe(recipe) && this.count() > 0;
  });
  readonly orderPoint = computed((): SharePoint | null => {
    const draft = this.draft();
    const order = draft?.isLive ? draft.recipe.order : null;
    return order?.by === 'out-from' ? { x: order.x, y: order.y } : null;
  });
  readonly countsText = computed(() => {
    const plan = this.shown()?.plan;
    return plan ? countsWords(plan, this.changing() !== null) : '';
  });
  /** Layers of the dry run in their order. */
  readonly taking = computed(() =>
    [...(this.shown()?.plan?.layers ?? [])].sort((a, b) => a.place - b.place).map(({ layer }) => layer),
  );
  readonly runId = computed(() => this.shown()?.plan?.run?.id ?? null);

  /** Other fields of the sentence change without asking anew who is picked. */
  private readonly pick = computed(() => this.draft()?.recipe.pick);
  readonly standing = computed(() => this.shown()?.standing);
  readonly picked = computed((): ReadonlySet<string> => {
    const [scene, pick] = [this.standing(), this.pick()];
    if (!scene || !pick) return new Set();
    return new Set(pickLayers(scene, pick).map((index) => scene.layers[index].id));
  });

  private readonly pickedCount = computed(() => {
    const scene = this.standing();
    if (!scene) return 0;
    const reasons = stayingOut(scene);
    return [...this.picked()].filter((id) => reasons.get(id) === null).length;
  });

  /** The sentence, where it makes copies and its dry run is shown. */
  readonly copies = computed(() => {
    const draft = this.draft();
    return draft?.isLive && draft.recipe.operation === 'multiply' ? draft.recipe : null;
  });
  readonly isCopying = computed(() => this.copies() !== null);

  /** "12 of 79 layers picked". */
  readonly pickedWords = computed(() => {
    const all = this.standing()?.layers.length ?? 0;
    const count = this.draft()?.recipe.operation === 'multiply' ? this.pickedCount() : this.count();
    return `${count} of ${all} ${all === 1 ? 'layer' : 'layers'} picked`;
  });

  readonly parameters = computed(() => {
    const recipe = this.draft()?.recipe;
    return recipe ? parametersFor(recipe, this.shelf()) : [];
  });
}
