import type { FoldedPanel } from '../fold';
import type { ResolvedJoint } from './joint';
import { STRENGTH } from './strength';

/** Where a figure of a joint was taken from. */
export interface FigureSource {
  readonly what: string;
  readonly source: string;
}

/** Said beside them all: no standard was open when the tables were entered. */
export const FROM_MEMORY =
  'Entered from memory of these standards; none was open. Check a figure in the standard before you rely on it.';

/** The standards behind a joint's thread, bolt, head, nut and sheets, each with what is said of it. */
export function figureSources(j: ResolvedJoint, panels: readonly FoldedPanel[]): readonly FigureSource[] {
  const sheets = panels.filter(p => j.joint.panels.includes(p.panel.id));
  return [
    {
      what: `thread ${j.thread.designation}`,
      source:
        j.thread.system === 'metric'
          ? 'ISO 261, ISO 898-1 (stress area), ISO 273 (hole)'
          : 'ASME B1.1 (stress area), ASME B18.2.8 (hole)',
    },
    {
      what: `strength ${j.joint.fastener.class.replace('-', ' ').replace('A2 ', 'A2-')}`,
      source: STRENGTH[j.joint.fastener.class].source,
    },
    { what: 'head', source: j.head.source },
    ...(j.nut ? [{ what: j.nut.name, source: j.nut.source }] : []),
    ...[...new Map(sheets.map(p => [p.material.id, p.material])).values()].map(m => ({
      what: m.name,
      source: `${m.source}${m.typical ? '; typical, not guaranteed' : ''}`,
    })),
  ];
}
