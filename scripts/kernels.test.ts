import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { asModule, compiled, TO } from './kernels.mjs';

it('the kernels that are kept are what their source gives', async () => {
  expect(asModule(await compiled()) === readFileSync(TO, 'utf8')).toBe(true);
}, 120_000);
