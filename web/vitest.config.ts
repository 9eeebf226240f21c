import { defineConfig } from 'vitest/config';

export default defineConfig({
  define: { __VERSION__: JSON.stringify('0.0.0') },
  test: {
    environment: 'jsdom',
    include: ['src/**/*.spec.{ts,tsx}'],
    setupFiles: ['src/patience.ts'],
    // A limit against hanging, not a measure of speed: the first render of a large view took more
    // than five seconds on a busy machine with two cores.
    testTimeout: 60_000,
  },
});
