import { availableParallelism } from 'node:os';
import { defineConfig } from 'vitest/config';

// A zone other than UTC, so that nothing passes because the two happen to agree.
process.env.TZ = 'America/St_Johns';

/** A part of the tests, in files of these folders. */
const part = (name: string, isolate: boolean, ...folders: readonly string[]) => ({
  test: { name, isolate, include: folders.map((folder) => `${folder}/**/*.test.ts`), testTimeout: 60_000 },
});

export default defineConfig({
  test: {
    // All of them: what runs the tests mostly waits.
    maxWorkers: availableParallelism(),
    projects: [
      // Modules are read once for all files of a processor: that takes more time than most tests do.
      part('unit', false, 'src'),
      // Each with a database or a process of its own, which modules hold on to.
      part('server', true, 'test/reference', 'test/server', 'test/command-line'),
    ],
  },
});
