/** Ids and times come from outside, so that tests can fix them. */
export interface Surroundings {
  readonly newId: () => string;
  /** ISO 8601 date and time. */
  readonly now: () => string;
}
