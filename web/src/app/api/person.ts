import { Injectable } from '@angular/core';
import { BehaviorSubject } from 'rxjs';

const STORED = 'wexikine.person';
const NOBODY = 'You';
/** Longest name of a person, in characters. */
export const MOST_NAME = 100;

/** The name under which this browser's changes are recorded. */
export function personName(): string {
  return localStorage.getItem(STORED)?.trim() || NOBODY;
}

/** The same for what shows and changes it. */
@Injectable({ providedIn: 'root' })
export class PersonService {
  private readonly subject = new BehaviorSubject(personName());
  readonly name$ = this.subject.asObservable();

  /** Sets the name; an empty one goes back to "You". */
  set(name: string): void {
    localStorage.setItem(STORED, name.trim().slice(0, MOST_NAME));
    this.subject.next(personName());
  }
}
