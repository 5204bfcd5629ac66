import { defineConfig } from 'vitest/config';
import { BaseSequencer, type TestSpecification } from 'vitest/node';

/** Files that take longest, longest first: what begins last keeps one worker busy while the others have nothing left. */
const LONG = [
  'e2e/src/strike',
  'e2e/src/weigh',
  'e2e/src/views',
  'e2e/src/path',
  'e2e/src/floor',
  'cli/src/cli',
  'server/src/server',
  'core/src/strike/shell-case',
  'core/src/strike/strike',
];

class LongFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const place = ({ moduleId }: TestSpecification): number => {
      const i = LONG.findIndex(l => moduleId.includes(`${l}.test`));
      return i < 0 ? LONG.length : i;
    };
    return (await super.sort(files)).sort((a, b) => place(a) - place(b));
  }
}

export default defineConfig({
  test: {
    include: ['{core,cli,server,web,demo,e2e,bench,scripts}/**/*.test.{ts,tsx}'],
    setupFiles: ['./vitest.setup.ts'],
    testTimeout: 180_000,
    hookTimeout: 120_000,
    pool: 'forks',
    experimental: { fsModuleCache: true },
    sequence: { sequencer: LongFirst },
  },
});
