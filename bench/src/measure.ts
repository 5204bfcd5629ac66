/** Middle of repeated timings, ms; the first rounds warm up and are left out. */
export function median(run: () => void, rounds = 41, warm = 12): number {
  for (let i = 0; i < warm; i++) run();
  const times: number[] = [];
  for (let i = 0; i < rounds; i++) {
    const from = performance.now();
    run();
    times.push(performance.now() - from);
  }
  return times.sort((a, b) => a - b)[Math.floor(rounds / 2)] as number;
}

export const line = (what: string, ms: number, ratio: number, of: string): void =>
  console.log(`${what.padEnd(52)} ${ms.toFixed(2).padStart(8)} ms   ${ratio.toFixed(2).padStart(6)} × ${of}`);

/** Processor time of this process so far, ms: what else runs on the machine does not count. */
export const cpu = (): number => {
  const { user, system } = process.cpuUsage();
  return (user + system) / 1000;
};

/** Middle of repeated runs by processor time, ms. */
export function cpuMedian(run: () => void, rounds = 61, warm = 25): number {
  for (let i = 0; i < warm; i++) run();
  const times = Array.from({ length: rounds }, () => {
    const from = cpu();
    run();
    return cpu() - from;
  });
  return times.sort((a, b) => a - b)[Math.floor(rounds / 2)] as number;
}
