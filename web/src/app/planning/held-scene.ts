import { apply, type Edit, type Layer, type Scene } from '@wexikine/core';
import type { ToPlanner } from './messages';

/** The scene as a worker holds it: handed over once, then changed by the same edits as the page's. */
export class HeldScene {
  private standing: Scene | null = null;
  private arriving: { readonly scene: Scene; readonly parts: number; readonly layers: (readonly Layer[])[] } | null =
    null;
  private readonly waiting: Edit[] = [];
  private planned: { readonly ticket: number; readonly edits: readonly Edit[] } | null = null;

  /** Null while it is not whole, or where a step could not be done, which is a bug. */
  get scene(): Scene | null {
    return this.standing;
  }

  /** Keeps the edits of a plan that the page may do. */
  keepPlan(ticket: number, edits: readonly Edit[]): void {
    this.planned = { ticket, edits };
  }

  /** Takes in a message; false where it is not about the scene. */
  take(message: ToPlanner): boolean {
    switch (message.type) {
      case 'scene':
        this.standing = message.parts === 0 ? message.scene : null;
        this.arriving = { scene: message.scene, parts: message.parts, layers: [] };
        return true;
      case 'layers':
        this.takeLayers(message.layers);
        return true;
      case 'edits':
        for (const edit of message.edits) this.waiting.push(edit);
        if (message.isLast) this.do(this.waiting.splice(0));
        return true;
      case 'applied':
        this.do(this.planned?.ticket === message.ticket ? this.planned.edits : null);
        return true;
      case 'library':
      case 'show':
      case 'plan':
      case 'check':
      case 'stop':
      case 'update':
        return false;
    }
  }

  private takeLayers(layers: readonly Layer[]): void {
    if (!this.arriving) return;
    this.arriving.layers.push(layers);
    if (this.arriving.layers.length < this.arriving.parts) return;
    this.standing = { ...this.arriving.scene, layers: this.arriving.layers.flat() };
    this.arriving = null;
  }

  private do(edits: readonly Edit[] | null): void {
    const done = this.standing && edits ? apply(this.standing, edits) : null;
    this.standing = done?.ok === true ? done.scene : null;
  }
}
