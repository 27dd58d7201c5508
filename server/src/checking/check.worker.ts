import { parentPort } from 'node:worker_threads';
import { doTask, type CheckTask } from './tasks';

/** A thread that reads and checks what was sent; whoever started it ends it when it takes too long. */
parentPort?.on('message', (task: CheckTask) => parentPort?.postMessage(doTask(task)));
