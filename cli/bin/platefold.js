#!/usr/bin/env node
import { load } from '../../scripts/program.mjs';

const { main } = await load('cli/src/main.ts');
process.exitCode = await main(process.argv.slice(2), {
  out: text => process.stdout.write(text),
  err: text => process.stderr.write(text),
});
