import { defineConfig } from 'vitest/config';

// A zone other than UTC, so that nothing passes because the two happen to agree.
process.env.TZ = 'America/St_Johns';

export default defineConfig({
  test: {
    include: [
      'src/**/*.test.ts',
      'test/reference/**/*.test.ts',
      'test/server/**/*.test.ts',
      'test/engine/**/*.test.ts',
      'test/exchange/**/*.test.ts',
      'test/ui/**/*.test.ts',
      'test/command-line/**/*.test.ts',
    ],
    testTimeout: 60_000,
  },
});
