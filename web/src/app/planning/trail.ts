import { Injectable } from '@angular/core';
import type { Edit, Scene } from '@wexikine/core';

/** So many steps back can be told as edits; who is further behind is given the whole scene. */
const MOST_STEPS = 64;

/** How the scene of a window came about: the edits from one of its states to the next, so that others can follow. */
@Injectable({ providedIn: 'root' })
export class SceneTrail {
  private steps: (readonly Edit[])[] = [];
  /** Place of the first kept step among all that were. */
  private first = 0;
  private places = new WeakMap<Scene, number>();
  private last: Scene | null = null;

  /** Notes that edits led from one state to another. */
  note(from: Scene, edits: readonly Edit[], to: Scene): void {
    if (this.last !== from) {
      this.first += this.steps.length + 1;
      this.steps = [];
      this.places.set(from, this.first);
    }
    this.steps.push(edits);
    this.places.set(to, this.first + this.steps.length);
    this.last = to;
    while (this.steps.length > MOST_STEPS) {
      this.steps.shift();
      this.first++;
    }
  }

  /** The steps that lead from one state to another, in their order; null where they are not known. */
  between(from: Scene, to: Scene): readonly (readonly Edit[])[] | null {
    const [start, end] = [this.places.get(from), this.places.get(to)];
    if (start === undefined || end === undefined || start < this.first || end < start) return null;
    return this.steps.slice(start - this.first, end - this.first);
  }
}
