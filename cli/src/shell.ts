import { readShellCase, type ShellAnswer, solveShell } from '@plate-fold/core/strike';
import { fixed } from '@plate-fold/core/units';

const place = (p: readonly number[]): string => p.map(v => fixed(v, 1)).join(', ');

/** What a solved shell says, for reading. */
function told(a: ShellAnswer): string {
  return [
    `${a.theory}: ${a.nodes} nodes, ${a.elements} elements, ${a.steps} ${a.steps === 1 ? 'step' : 'steps'}, ${fixed(a.totalMs, 0)} ms`,
    `most: ${fixed(a.maxDeflection.mm, 4)} mm at ${place(a.maxDeflection.at)}`,
    ...a.deflections.map(d => `at ${place(d.at)}: ${d.mm.map(v => fixed(v, 4)).join(', ')} mm`),
    ...(a.permanent ?? []).map(d => `stays at ${place(d.at)}: ${d.mm.map(v => fixed(v, 4)).join(', ')} mm`),
    ...a.reactions.map(r => `${r.id} on the plate: ${r.force.map(v => fixed(v, 1)).join(', ')} N`),
    ...a.vonMises.map(v => `von Mises, ${v.where}, ${v.face}: ${fixed(v.mpa, 1)} MPa`),
  ].join('\n');
}

/** Solves a bare shell in the format of docs/plan-file.md. The text to print, or the fault. */
export function runShell(
  text: string,
  json: boolean,
): { readonly out: string; readonly code?: number } | { readonly fault: string } {
  const read = readShellCase(text);
  if (!read.ok) return { fault: read.fault };
  const made = solveShell(read.value.shell, read.value.points, () => performance.now());
  if (!made.ok) return { fault: made.fault };
  return { out: json ? JSON.stringify(made.value, null, 1) : told(made.value) };
}
