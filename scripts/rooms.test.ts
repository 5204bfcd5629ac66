import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';
import { roomFaults, sources } from './rooms.mjs';

const faultsOf = (files: Readonly<Record<string, string>>): readonly string[] =>
  roomFaults(new Map(Object.entries(files)));

describe('the order of the rooms', () => {
  it('holds in this house', () => {
    const files = sources(fileURLToPath(new URL('..', import.meta.url)));
    expect(files.size).toBeGreaterThan(500);
    expect(roomFaults(files)).toEqual([]);
  });
  it('refuses a room that imports one after it, types too, and names both', () => {
    expect(
      faultsOf({
        'core/src/units/a.ts': "import type { X } from '../checks';\n",
        'core/src/checks/index.ts': 'export interface X {}\n',
      }),
    ).toEqual(['core/src/units/a.ts: imports core/src/checks/index.ts, but units comes before checks']);
    expect(
      faultsOf({ 'web/src/picture/a.ts': "import '../state/b';", 'web/src/state/b.ts': '' })[0],
    ).toContain('picture comes before state');
  });
  it('refuses a stage that imports another, also by a worker’s address', () => {
    expect(
      faultsOf({
        'web/src/stages/bolt/a.ts': "new Worker(new URL('../strike/b.ts', import.meta.url));",
        'web/src/stages/strike/b.ts': '',
      })[0],
    ).toContain('stages/bolt and stages/strike never import each other');
  });
  it('refuses a way past the door of a core room, and into a package’s folders', () => {
    expect(
      faultsOf({
        'core/src/plan/a.ts': "import { b } from '../rig/b';",
        'core/src/rig/b.ts': '',
        'core/src/rig/index.ts': '',
      })[0],
    ).toContain('past the door of rig');
    expect(faultsOf({ 'cli/src/a.ts': "import '@plate-fold/core/src/rig/b';" })[0]).toContain(
      'its own doors',
    );
    expect(
      faultsOf({ 'core/src/rig/a.ts': "import '../../../web/src/ui/b';", 'web/src/ui/b.ts': '' })[0],
    ).toContain('its own doors');
  });
  it('keeps Node, React and the server out of core, Node out of the page, but not out of tests', () => {
    for (const what of ['node:fs', 'react', 'koa', 'drizzle-orm'])
      expect(faultsOf({ 'core/src/rig/a.ts': `import x from '${what}';` }), what).toHaveLength(1);
    expect(faultsOf({ 'web/src/ui/a.ts': "import 'node:fs';" })).toHaveLength(1);
    expect(faultsOf({ 'core/src/rig/a.test.ts': "import 'node:fs';" })).toEqual([]);
  });
  it('finds a ring of files, also one of types only, and a room without a place', () => {
    expect(
      faultsOf({
        'core/src/rig/a.ts': "import type { B } from './b';",
        'core/src/rig/b.ts': "import type { C } from './c';",
        'core/src/rig/c.ts': "import type { A } from './a';",
      })[0],
    ).toContain('core/src/rig/a.ts → core/src/rig/b.ts → core/src/rig/c.ts → core/src/rig/a.ts');
    expect(faultsOf({ 'web/src/attic/a.ts': '' })[0]).toContain('no place in the order');
  });
});
