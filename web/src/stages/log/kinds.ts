import type { Facts } from '@plate-fold/core/derive';
import type { LogEntry, LogKind } from '@plate-fold/core/log';
import { nanoid } from 'nanoid';

export const KIND_NAMES: Readonly<Record<LogKind, string>> = {
  install: 'Installed',
  're-torque': 'Re-torque',
  inspection: 'Inspection',
  hit: 'Hit',
  straighten: 'Straightened',
  coating: 'Coating',
  'ride-height': 'Ride height',
  weights: 'Weighed',
  service: 'Service',
};

/** What is looked at, each fine or not: common practice, no source. */
export const CHECKLIST = [
  'No new dents or gouges',
  'No rub marks above the plates',
  'All bolts there, none loose or bent',
  'No rust at holes and edges',
  'Drains and louvers clear of mud and rocks',
  'Nothing rattles when knocked',
] as const;

export const CORNERS = ['front left', 'front right', 'rear left', 'rear right'] as const;

/** Names of plates and services by id, for searching and showing. */
export const namesOf = ({ document }: Facts): ReadonlyMap<string, string> =>
  new Map([
    ...document.plan.panels.map(p => [p.id, `plate ${p.mark} ${p.name}`] as const),
    ...document.rig.servicePoints.map(s => [s.id, s.name] as const),
  ]);

/** An id no other entry has. */
export const freshEntryId = (): string => nanoid();

export type Draft = Partial<LogEntry> & Pick<LogEntry, 'id' | 'kind' | 'at'>;
