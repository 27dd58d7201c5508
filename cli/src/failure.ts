/** An expected failure of a command: its message goes to standard error, and the exit code is 1. */
export class Failure extends Error {}
