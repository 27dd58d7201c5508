import type { Finding, LibraryItem, Plan, RunUpdate, Scene } from '@wexikine/core';
import { Subject, type Observable } from 'rxjs';
import type { FromPlanner, PlanTask, ToPlanner, UpdateTask } from './messages';
import { assemblePlan } from './plan-task';

interface Job<T> {
  readonly scene: Scene;
  readonly task: T;
}

/** What came out of a job, with the very scene, task and library that it was done for. */
export interface Done<T, R> extends Job<T> {
  readonly items: readonly LibraryItem[];
  /** Null when the work itself failed, which is a bug. */
  readonly result: R | null;
}

/** The part of a worker that planning needs. */
export type PlanPort = Pick<Worker, 'postMessage' | 'addEventListener' | 'terminate'>;

type Part = Extract<FromPlanner, { type: 'part' }>;

/**
 * Works in a worker, one job at a time; while one runs, only the newest of those that wait is kept, so that dragging
 * a number never piles up work.
 */
abstract class WorkerQueue<T, R> {
  private readonly subject = new Subject<Done<T, R>>();
  readonly done$: Observable<Done<T, R>> = this.subject.asObservable();
  private running: (Job<T> & { readonly items: readonly LibraryItem[] }) | null = null;
  private waiting: Job<T> | null = null;
  private sentScene: Scene | null = null;
  private ticket = 0;
  private items: readonly LibraryItem[] = [];
  private port: PlanPort;

  constructor(private readonly open: () => PlanPort) {
    this.port = this.listen();
  }

  setLibrary(items: readonly LibraryItem[]): void {
    this.items = items;
    this.send({ type: 'library', items });
  }

  request(job: Job<T>): void {
    if (this.running) this.waiting = job;
    else this.start(job);
  }

  /** Gives up what runs and what waits: the worker is ended and another one takes its place. */
  cancel(): void {
    this.waiting = null;
    if (!this.running) return;
    this.running = null;
    this.port.terminate();
    this.port = this.listen();
    this.sentScene = null;
    this.send({ type: 'library', items: this.items });
  }

  close(): void {
    this.port.terminate();
    this.subject.complete();
  }

  protected abstract message(ticket: number, task: T): ToPlanner;

  /** The result of the job with a message; undefined while more is to come. */
  protected abstract read(message: FromPlanner, job: Job<T>): R | null | undefined;

  private listen(): PlanPort {
    const port = this.open();
    port.addEventListener('message', (event) => this.receive(port, (event as MessageEvent<FromPlanner>).data));
    return port;
  }

  private start(job: Job<T>): void {
    this.running = { ...job, items: this.items };
    if (this.sentScene !== job.scene) {
      this.send({ type: 'scene', scene: job.scene });
      this.sentScene = job.scene;
    }
    this.send(this.message(++this.ticket, job.task));
  }

  private receive(port: PlanPort, message: FromPlanner): void {
    const job = this.running;
    if (!job || port !== this.port || message.ticket !== this.ticket) return;
    const result = message.type === 'failed' ? null : this.read(message, job);
    if (result === undefined) return;
    this.running = null;
    const next = this.waiting;
    this.waiting = null;
    if (next) this.start(next);
    this.subject.next({ ...job, result });
  }

  private send(message: ToPlanner): void {
    this.port.postMessage(message);
  }
}

export type Planned = Done<PlanTask, Plan>;

/** Plans recipes. */
export class Planner extends WorkerQueue<PlanTask, Plan> {
  private head: { readonly plan: Plan; readonly parts: number } | null = null;
  private parts: Part[] = [];

  protected override message(ticket: number, task: PlanTask): ToPlanner {
    return { type: 'plan', ticket, task };
  }

  protected override read(message: FromPlanner, { scene, task }: Job<PlanTask>): Plan | null | undefined {
    if (message.type === 'plan') {
      this.head = message;
      this.parts = [];
    }
    if (message.type === 'part') this.parts.push(message);
    const { head, parts } = this;
    if (!head || parts.length < head.parts) return undefined;
    this.head = null;
    return assemblePlan(head.plan, parts, task.run === null, scene.runs.length);
  }
}

/** Looks over scenes and dry runs. */
export class Checker extends WorkerQueue<PlanTask | null, readonly Finding[]> {
  protected override message(ticket: number, task: PlanTask | null): ToPlanner {
    return { type: 'check', ticket, task };
  }

  protected override read(message: FromPlanner): readonly Finding[] | undefined {
    return message.type === 'findings' ? message.findings : undefined;
  }
}

/** Brings several runs up to date. */
export class Updater extends WorkerQueue<UpdateTask, readonly RunUpdate[]> {
  protected override message(ticket: number, task: UpdateTask): ToPlanner {
    return { type: 'update', ticket, task };
  }

  protected override read(message: FromPlanner): readonly RunUpdate[] | undefined {
    return message.type === 'updates' ? message.updates : undefined;
  }
}
