import type { LibraryItem, Plan, Recipe, RunContext, Scene } from '@wexikine/core';
import { Subject, type Observable } from 'rxjs';
import type { FromPlanner, ToPlanner } from './messages';

/** A plan together with the very scene and recipe that it was made for. */
export interface Planned {
  readonly scene: Scene;
  readonly recipe: Recipe;
  /** The library that it was planned with. */
  readonly items: readonly LibraryItem[];
  /** Null when planning itself failed, which is a bug. */
  readonly plan: Plan | null;
}

interface Job {
  readonly scene: Scene;
  readonly recipe: Recipe;
  readonly context: RunContext;
}

/** The part of a worker that planning needs. */
export type PlanPort = Pick<Worker, 'postMessage' | 'addEventListener' | 'terminate'>;

/**
 * Plans in a worker, one job at a time; while one runs, only the newest of those that wait is kept, so that dragging
 * a number never piles up work.
 */
export class Planner {
  private readonly subject = new Subject<Planned>();
  readonly planned$: Observable<Planned> = this.subject.asObservable();
  private running: (Job & { readonly items: readonly LibraryItem[] }) | null = null;
  private waiting: Job | null = null;
  private sentScene: Scene | null = null;
  private ticket = 0;
  private items: readonly LibraryItem[] = [];

  constructor(private readonly port: PlanPort) {
    port.addEventListener('message', (event) => this.receive((event as MessageEvent<FromPlanner>).data));
  }

  setLibrary(items: readonly LibraryItem[]): void {
    this.items = items;
    this.send({ type: 'library', items });
  }

  request(job: Job): void {
    if (this.running) this.waiting = job;
    else this.start(job);
  }

  close(): void {
    this.port.terminate();
    this.subject.complete();
  }

  private start(job: Job): void {
    this.running = { ...job, items: this.items };
    if (this.sentScene !== job.scene) {
      this.send({ type: 'scene', scene: job.scene });
      this.sentScene = job.scene;
    }
    this.send({ type: 'plan', ticket: ++this.ticket, recipe: job.recipe, context: job.context });
  }

  private receive(message: FromPlanner): void {
    const job = this.running;
    if (!job || message.ticket !== this.ticket) return;
    this.running = null;
    const next = this.waiting;
    this.waiting = null;
    if (next) this.start(next);
    const { scene, recipe, items } = job;
    this.subject.next({ scene, recipe, items, plan: message.type === 'plan' ? message.plan : null });
  }

  private send(message: ToPlanner): void {
    this.port.postMessage(message);
  }
}
