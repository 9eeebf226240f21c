// Writes the service worker: the built page itself is kept in the browser, answers of the API are not.
import { generateSW } from 'workbox-build';

const { warnings } = await generateSW({
  globDirectory: 'dist',
  globPatterns: ['**/*.{js,css,html,svg,png,woff2,webmanifest}'],
  swDest: 'dist/sw.js',
  navigateFallback: '/index.html',
  navigateFallbackDenylist: [/^\/api\//, /^\/licences\.txt$/],
  skipWaiting: true,
  clientsClaim: true,
  cleanupOutdatedCaches: true,
  sourcemap: false,
  inlineWorkboxRuntime: true,
});
if (warnings.length > 0) throw new Error(warnings.join('\n'));
