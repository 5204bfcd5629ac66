import type { LogEntry } from '@plate-fold/core/log';
import { boltFaults, faultName, installs, type Tick } from '@plate-fold/core/sequence';

const WHEELS = ['frontLeft', 'frontRight', 'rearLeft', 'rearRight'] as const;

/** The newest figures that a step of a run was given. */
const valuesOf = (ticks: readonly Tick[], step: string): Readonly<Record<string, number>> | undefined =>
  [...ticks].filter(t => t.stepId === step && t.kind === 'done' && t.values).sort((a, b) => b.at - a.at)[0]
    ?.values ?? undefined;

/** What an ended run leaves in the plan's log: the work itself with what was left open, and the heights that were measured in it. */
export function logOf(
  run: { readonly id: string; readonly service: string | null; readonly startedAt: number },
  ticks: readonly Tick[],
  said: { readonly km?: number; readonly minutes?: number },
  at: number,
): readonly LogEntry[] {
  const off = ticks.filter(t => t.kind === 'deviation').length;
  const left = [...boltFaults(ticks).values()].filter(f => f.state !== 'mended');
  const before = valuesOf(ticks, 'fenders');
  const km = said.km ?? before?.km ?? valuesOf(ticks, 'service-kit')?.km;
  const work: LogEntry = {
    id: `run-${run.id}`,
    kind: installs(run.service) ? 'install' : 'service',
    at,
    run: run.id,
    ...(km === undefined ? {} : { km }),
    ...(run.service === null || installs(run.service) ? {} : { point: run.service }),
    ...(said.minutes === undefined ? {} : { minutes: said.minutes }),
    ...(ticks.some(t => t.kind === 'done' && t.jointId !== null) ? { opened: true } : {}),
    ...(left.length > 0
      ? {
          left: left.map(f => ({
            joint: f.joint,
            fault: f.fault,
            ...(f.by?.note ? { reason: f.by.note } : {}),
          })),
        }
      : {}),
    ...(off > 0
      ? { note: `${off} ${off === 1 ? 'problem was' : 'problems were'} reported: see the record of the run.` }
      : {}),
  };
  const heights = [
    ['before', 'Before the plates', before, run.startedAt],
    ['after', 'With the plates', valuesOf(ticks, 'ride-height'), at],
  ] as const;
  return [
    work,
    ...heights.flatMap(([when, note, v, time]): readonly LogEntry[] => {
      const corners = WHEELS.map(w => v?.[w]);
      if (corners.some(c => c === undefined)) return [];
      const fuel = v?.fuel === undefined ? '' : `, fuel ${Math.round(v.fuel * 100)} %`;
      return [
        {
          id: `run-${run.id}-${when}`,
          kind: 'ride-height',
          at: time,
          run: run.id,
          corners: corners as unknown as readonly [number, number, number, number],
          note: `${note}${fuel}.`,
          ...(when === 'before' && before?.km !== undefined ? { km: before.km } : {}),
        },
      ];
    }),
  ];
}

/** Bolts that were left unsound by an earlier run, as reports in a new one. */
export const carriedOver = (
  ticks: readonly Tick[],
  endedAt: number,
  joints: ReadonlySet<string>,
  now: number,
): readonly Tick[] =>
  [...boltFaults(ticks).values()]
    .filter(f => f.state !== 'mended' && joints.has(f.joint))
    .map((f, i) => ({
      id: `carried-${i}-${now}`,
      stepId: f.tick.stepId,
      jointId: f.joint,
      kind: 'deviation',
      fault: f.fault,
      note: `${faultName(f.fault)}, left from the run of ${new Date(endedAt).toISOString().slice(0, 10)}`,
      who: f.tick.who ?? null,
      at: now + i,
      device: 'earlier run',
    }));
