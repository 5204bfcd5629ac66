import { defineConfig } from 'vitest/config';
import { BaseSequencer, type TestSpecification } from 'vitest/node';

/** What takes longest, longest first: a long file that begins last keeps one worker busy while the others have nothing left. */
const LONG = [
  'e2e/src/views.test',
  'e2e/src/strike.test',
  'e2e/src/weigh.test',
  'e2e/src/fold.test',
  'e2e/src/',
  'core/src/strike/shell-case.test',
  'core/src/strike/strike.test',
  'cli/src/cli.test',
  'core/src/sequence/rules.test',
  'server/src/server.test',
];

class LongFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const place = ({ moduleId }: TestSpecification): number => {
      const i = LONG.findIndex(l => moduleId.includes(l));
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
    // what is waited for takes longer on a machine that is busy with others
    expect: { poll: { timeout: 60_000 } },
    pool: 'forks',
    // random plans leave much behind: gathered less often, it takes a tenth to a sixth less of the processor
    execArgv: ['--max-semi-space-size=64'],
    experimental: { fsModuleCache: true },
    sequence: { sequencer: LongFirst },
  },
});
