import { defineConfig } from '@playwright/test';
import base from './playwright.config';

/** Takes the pictures of docs/screenshots from the demo data: npm run screenshots. */
export default defineConfig({ ...base, testDir: './screenshots', reporter: [['list']] });
