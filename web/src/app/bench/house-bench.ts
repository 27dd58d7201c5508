import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import {
  createShelf,
  houseSchema,
  houseText,
  type Easing,
  type HouseItem,
  type HouseValue,
  type LibraryDetail,
  type LibraryItem,
} from '@wexikine/core';
import { ColourSwatch } from '../fields/colour-swatch';
import { ItemPicture } from '../library/item-picture';
import { LibraryService } from '../library/library.service';
import { EasingEditor } from '../fields/easing/easing-editor';
import { EffectsList } from './effects-list';
import { ItemRecordView } from './item-record';

/** A house value on the bench: the value, or another one that it follows, and what would change with it. */
@Component({
  selector: 'wx-house-bench',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ColourSwatch, EasingEditor, EffectsList, ItemPicture, ItemRecordView],
  templateUrl: './house-bench.html',
  styleUrl: './value-bench.scss',
})
export class HouseBench {
  readonly item = input.required<HouseItem>();
  readonly detail = input.required<LibraryDetail>();
  readonly revisions = input.required<readonly LibraryItem[]>();
  readonly changed = output<HouseValue>();

  protected readonly shelf = toSignal(inject(LibraryService).shelf$, { initialValue: createShelf([]) });
  protected readonly problem = signal<string | null>(null);
  protected readonly text = computed(() => houseText(this.item().body));
  protected readonly easing = computed(() => {
    const { body } = this.item();
    return body.type === 'curve' ? body.value : null;
  });
  protected readonly published = computed((): Easing | null => {
    const [newest] = this.revisions();
    if (newest?.kind !== 'house' || newest.body.type !== 'curve') return null;
    return JSON.stringify(newest.body.value) === JSON.stringify(this.easing()) ? null : newest.body.value;
  });
  /** House values of the same type that this one could follow without a circle. */
  protected readonly others = computed(() => {
    const { id, body } = this.item();
    const items = [...this.shelf().items.values()].filter((item): item is HouseItem => item.kind === 'house');
    const byId = new Map(items.map((item) => [item.id, item]));
    const leadsHere = (item: HouseItem): boolean => {
      const passed = new Set<string>();
      let at: HouseItem | undefined = item;
      while (at && !passed.has(at.id)) {
        if (at.id === id) return true;
        passed.add(at.id);
        at = at.body.as === undefined ? undefined : byId.get(at.body.as);
      }
      return false;
    };
    return items.filter((item) => item.body.type === body.type && !leadsHere(item));
  });
  protected readonly followed = computed(() => {
    const { as } = this.item().body;
    return as === undefined ? null : (this.shelf().items.get(as)?.name ?? as);
  });

  protected type(event: Event): void {
    this.give((event.target as HTMLInputElement).value.trim());
  }

  protected give(text: string): void {
    const { body } = this.item();
    if (body.type === 'curve') return;
    const value = body.type === 'number' ? (text === '' ? NaN : Number(text)) : text;
    const parsed = houseSchema.safeParse({ ...body, value });
    const number = 'This is not a number. Write one such as 0.12.';
    this.problem.set(parsed.success ? null : body.type === 'number' ? number : parsed.error.issues[0].message);
    if (parsed.success) this.changed.emit(parsed.data);
  }

  protected giveCurve(easing: unknown): void {
    const { body } = this.item();
    if (body.type === 'curve') this.changed.emit({ ...body, value: easing as Easing });
  }

  /** Follows another house value, or stands by itself again with the value that it had. */
  protected follow(event: Event): void {
    const id = (event.target as HTMLSelectElement).value;
    const { as: _as, ...own } = this.item().body;
    const other = this.others().find((item) => item.id === id);
    this.changed.emit((other ? { ...own, value: other.body.value, as: id } : own) as HouseValue);
  }
}
