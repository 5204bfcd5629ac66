import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import type { Plugin } from 'vite';

const SOURCE = fileURLToPath(new URL('./sw.js', import.meta.url));

/** Writes /sw.js into the build, with the names of the files it keeps; another build is another version. */
export function serviceWorker(): Plugin {
  return {
    name: 'plate-fold-service-worker',
    apply: 'build',
    // last, when the bundler has put together or taken out what it will
    enforce: 'post',
    generateBundle: {
      order: 'post',
      handler(_, bundle) {
        const files = [
          '/',
          '/plate.svg',
          ...Object.keys(bundle)
            .filter(f => f.startsWith('assets/') && !f.endsWith('.map'))
            .map(f => `/${f}`),
        ];
        const version = createHash('sha256').update(files.join()).digest('hex').slice(0, 12);
        const source = readFileSync(SOURCE, 'utf8')
          .replace('__VERSION__', version)
          .replace('__FILES__', JSON.stringify(files));
        this.emitFile({ type: 'asset', fileName: 'sw.js', source });
      },
    },
  };
}
