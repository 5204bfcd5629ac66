#!/usr/bin/env node
import { load } from '../../scripts/program.mjs';

await load('server/src/main.ts');
