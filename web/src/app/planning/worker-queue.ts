import type { Edit, LibraryItem, Scene } from '@wexikine/core';
import { BehaviorSubject, distinctUntilChanged, Subject, type Observable } from 'rxjs';
import type { FromPlanner, ToPlanner } from './messages';
import { Outbox } from './outbox';
import { inParts } from './parts';
import type { SceneTrail } from './trail';

/** Something to be worked out for a scene. */
export interface Job<T> {
  readonly scene: Scene;
  readonly task: T;
}

/** What came out of a job, with the very scene, task and library that it was done for. */
export interface Done<T, R> extends Job<T> {
  readonly items: readonly LibraryItem[];
  /** Null when the work itself failed, which is a bug. */
  readonly result: R | null;
}

/** Nothing is known of how scenes came about: each is handed over whole. */
const NO_TRAIL: Pick<SceneTrail, 'between'> = { between: () => null };

/** The part of a worker that planning needs. */
export type PlanPort = Pick<Worker, 'postMessage' | 'addEventListener' | 'terminate'>;

/**
 * Works in a worker, one job at a time; while one runs, only the newest of those that wait is kept, so that dragging
 * a number never piles up work.
 */
export abstract class WorkerQueue<T, R> {
  private readonly subject = new Subject<Done<T, R>>();
  readonly done$: Observable<Done<T, R>> = this.subject.asObservable();
  private readonly progress = new BehaviorSubject<number | null>(null);
  /** How far what takes long has come, 0 to 1; null while nothing does. */
  readonly progress$: Observable<number | null> = this.progress.pipe(distinctUntilChanged());
  private running: (Job<T> & { readonly items: readonly LibraryItem[] }) | null = null;
  private waiting: Job<T> | null = null;
  private sentScene: Scene | null = null;
  private ticket = 0;
  private jobTicket = 0;
  private items: readonly LibraryItem[] = [];
  private port: PlanPort;

  private readonly outbox = new Outbox((message) => this.port.postMessage(message));
  /** The plan that the worker made last and still has; done once, it is a step like any other. */
  private lastPlan: { readonly edits: readonly Edit[]; readonly ticket: number } | null = null;

  constructor(
    private readonly open: () => PlanPort,
    private readonly trail: Pick<SceneTrail, 'between'> = NO_TRAIL,
  ) {
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
    this.progress.next(null);
    this.port.terminate();
    this.outbox.clear();
    this.port = this.listen();
    this.sentScene = null;
    this.lastPlan = null;
    this.send({ type: 'library', items: this.items });
  }

  /** Gives up what runs and what waits; the worker hears of it between two steps of its work. */
  protected giveUp(): void {
    this.waiting = null;
    if (!this.running) return;
    this.running = null;
    this.send({ type: 'stop' });
  }

  close(): void {
    this.port.terminate();
    this.subject.complete();
  }

  protected abstract message(ticket: number, task: T): ToPlanner;

  /** The result of the job with a message; undefined while more is to come. */
  protected abstract read(message: FromPlanner): R | null | undefined;

  /** False for what nobody asked for: how far it has come is not told. */
  protected isAwaited(_ticket: number): boolean {
    return true;
  }

  /** Takes a message that answers none of the queue's jobs. */
  protected takeAside(_message: FromPlanner): boolean {
    return false;
  }

  private listen(): PlanPort {
    const port = this.open();
    port.addEventListener('message', (event) => this.receive(port, (event as MessageEvent<FromPlanner>).data));
    return port;
  }

  private start(job: Job<T>): void {
    this.running = { ...job, items: this.items };
    this.ask(job.scene, this.message((this.jobTicket = this.nextTicket()), job.task));
  }

  /** Sends a question about a scene, and before it what the worker does not have of the scene. */
  protected ask(scene: Scene, message: ToPlanner): void {
    if (this.sentScene !== scene) this.bringUpTo(scene);
    this.send(message);
  }

  /** Notes that the worker knows a plan's edits. */
  protected remember(edits: readonly Edit[], ticket: number): void {
    this.lastPlan = { edits, ticket };
  }

  private bringUpTo(scene: Scene): void {
    const steps = this.sentScene ? this.trail.between(this.sentScene, scene) : null;
    this.sentScene = scene;
    if (steps) steps.forEach((edits) => this.sendStep(edits));
    else this.sendScene(scene);
  }

  private sendStep(edits: readonly Edit[]): void {
    if (this.lastPlan?.edits === edits) {
      this.send({ type: 'applied', ticket: this.lastPlan.ticket });
      this.lastPlan = null;
      return;
    }
    const parts = inParts(edits);
    parts.forEach((part, i) => {
      const isLast = i === parts.length - 1;
      this.outbox.send({ type: 'edits', edits: part, isLast }, !isLast);
    });
  }

  private sendScene(scene: Scene): void {
    const parts = inParts(scene.layers);
    if (parts.length <= 1) return this.send({ type: 'scene', scene, parts: 0 });
    this.outbox.send({ type: 'scene', scene: { ...scene, layers: [] }, parts: parts.length }, true);
    for (const layers of parts) this.outbox.send({ type: 'layers', layers }, true);
  }

  protected nextTicket(): number {
    return ++this.ticket;
  }

  private receive(port: PlanPort, message: FromPlanner): void {
    const job = this.running;
    if (port !== this.port) return;
    // Whatever failed, the next question brings the whole scene along.
    if (message.type === 'failed') this.sentScene = null;
    this.progress.next(message.type === 'progress' && this.isAwaited(message.ticket) ? message.share : null);
    if (message.type === 'progress') return;
    if (this.takeAside(message)) return;
    if (!job || message.ticket !== this.jobTicket) return;
    const result = message.type === 'failed' ? null : this.read(message);
    if (result === undefined) return;
    this.running = null;
    const next = this.waiting;
    this.waiting = null;
    if (next) this.start(next);
    this.subject.next({ ...job, result });
  }

  private send(message: ToPlanner): void {
    this.outbox.send(message);
  }
}
