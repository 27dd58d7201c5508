import { test as base } from '@playwright/test';
import { portOf } from './ports';

export { expect } from '@playwright/test';

/** Tests that each run against the server of their worker. */
export const test = base.extend({
  baseURL: async ({}, use, { parallelIndex }) => use(`http://127.0.0.1:${portOf(parallelIndex)}`),
});
