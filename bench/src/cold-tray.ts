// A first solution of the tray in a process of its own: `node --import tsx cold-tray.ts <mm of the elements>` prints its processor time, ms.
import { solveShell } from '@plate-fold/core/strike';
import { cpuMedian } from './measure';
import { tray } from './tray';

const shell = tray(Number(process.argv[2]));
const ms = cpuMedian(
  () => {
    const made = solveShell(shell, []);
    if (!made.ok) throw new Error(made.fault);
  },
  1,
  0,
);
console.log(ms);
