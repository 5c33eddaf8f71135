import { existsSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { configDefaults, defineConfig } from 'vitest/config';
import { POSTGRES_FOLDER } from './scripts/postgres.mjs';

// A zone other than UTC, so that nothing passes because the two happen to agree.
process.env.TZ = 'America/St_Johns';

const hasDatabase = process.env.DATABASE_URL !== undefined || existsSync(POSTGRES_FOLDER);
if (!hasDatabase) console.warn('Tests of the server are skipped: there is no PostgreSQL here. "npm test" installs it.');

export default defineConfig({
  test: {
    // All of them: what runs the tests mostly waits.
    maxWorkers: availableParallelism(),
    projects: [
      // Modules are read once for all files of a processor: that takes more time than most tests do.
      { test: { name: 'unit', isolate: false, include: ['src/**/*.test.ts'], testTimeout: 60_000 } },
      // Each with a database or a process of its own, which modules hold on to.
      {
        test: {
          name: 'server',
          include: ['test/{reference,server,command-line}/**/*.test.ts'],
          exclude: [...configDefaults.exclude, ...(hasDatabase ? [] : ['test/server/**'])],
          globalSetup: 'test/support/prepare-server-tests.ts',
          testTimeout: 60_000,
        },
      },
    ],
  },
});
