import type { Flange } from '../../plan';
import { command, plateNamed } from '../command';
import { flangeAdded, flangeChanged, flangeRemoved } from '../flanges';

type Part = Partial<Pick<Flange, 'length' | 'angle' | 'insideRadius' | 'inset' | 'mitre'>>;

/** On a base edge, or on the free edge of another flange. */
export const addFlange = command<{
  readonly panel: string;
  readonly where: { readonly edge: number } | { readonly on: string };
  readonly length?: number;
  readonly angle?: number;
  readonly inset?: readonly [number, number];
}>({
  id: 'flange.add',
  label: (doc, { panel }) => `add a flange to ${plateNamed(doc, panel)}`,
  run: (doc, { panel, where, length, angle, inset }) => {
    const added = flangeAdded(doc, panel, where, length, angle);
    const id = added.plan.panels.find(p => p.id === panel)?.flanges.at(-1)?.id;
    return inset && id !== undefined ? flangeChanged(added, panel, id, { inset }) : added;
  },
});

export const changeFlanges = command<{
  readonly panel: string;
  readonly flanges: readonly string[];
  readonly part: Part;
}>({
  id: 'flange.change',
  label: (doc, { panel, part }) =>
    part.mitre === undefined
      ? `change a bend of ${plateNamed(doc, panel)}`
      : `${part.mitre ? 'miter' : 'open'} a corner of ${plateNamed(doc, panel)}`,
  run: (doc, { panel, flanges, part }) => flanges.reduce((d, f) => flangeChanged(d, panel, f, part), doc),
});

export const removeFlange = command<{ readonly panel: string; readonly flange: string }>({
  id: 'flange.remove',
  label: (doc, { panel }) => `delete a flange of ${plateNamed(doc, panel)}`,
  run: (doc, { panel, flange }) => flangeRemoved(doc, panel, flange),
});
