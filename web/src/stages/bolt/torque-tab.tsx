import { lengthName, type ResolvedJoint } from '@plate-fold/core/bolt';
import { buildName } from '@plate-fold/core/plan';
import { fixed, formatTorque, torqueFigure } from '@plate-fold/core/units';
import { Printer } from 'lucide-react';
import { useFacts } from '../../state/derived';
import { useAppSelector } from '../../state/store';
import { Button } from '../../ui/button';
import { type Column, DataTable } from '../../ui/data-table';
import { Fig } from '../../ui/figure';

/** Every joint's torque with its band and what limits it, for the wall of the garage. */
export function TorqueTab() {
  const { joints, document, build } = useFacts();
  const units = useAppSelector(s => s.view.units);
  const most = Math.max(1, ...joints.map(j => j.torqueBand[1]));
  const share = (nm: number): string => `${(100 * nm) / most}%`;
  const columns: readonly Column<ResolvedJoint>[] = [
    {
      id: 'joint',
      head: 'Joint',
      names: true,
      sort: j => j.id,
      headClass: 'pr-3',
      cellClass: 'fig py-1.5 pr-3 text-left',
      cell: j => j.id,
    },
    {
      id: 'bolt',
      head: 'Bolt',
      sort: j => `${j.thread.designation} ${String(j.lengthMm).padStart(6, '0')}`,
      headClass: 'pr-3',
      cellClass: 'fig py-1.5 pr-3',
      cell: j => `${j.thread.designation} × ${lengthName(j.lengthMm, j.thread)}`,
    },
    {
      id: 'lube',
      head: 'On the threads',
      sort: j => j.joint.lube,
      headClass: 'pr-3',
      cellClass: 'py-1.5 pr-3',
      cell: j => (
        <>
          {j.joint.lube}, K {fixed(j.kFactor, 2)}
          {j.prevailingNm > 0 && (
            <span className="block text-note text-ink2">
              with {formatTorque(j.prevailingNm, units)} for the nut’s lock
            </span>
          )}
        </>
      ),
    },
    {
      id: 'torque',
      head: 'Torque',
      sort: j => j.torqueNm,
      headClass: 'pr-3 text-right',
      cellClass: 'py-1.5 pr-3 text-right text-sub',
      cell: j => <Fig of={torqueFigure(j.torqueNm, units)} />,
    },
    {
      id: 'band',
      head: 'Band',
      headClass: 'w-1/4 py-1 pr-3 max-desk:hidden',
      cellClass: 'py-1.5 pr-3 max-desk:hidden',
      cell: j => (
        <>
          <div className="relative h-4" aria-hidden="true">
            <div
              className="absolute inset-y-1 rounded-tight bg-scribe"
              style={{ left: share(j.torqueBand[0]), width: share(j.torqueBand[1] - j.torqueBand[0]) }}
            />
            <div className="absolute inset-y-0 w-0.5 bg-ink" style={{ left: share(j.torqueNm) }} />
          </div>
          <span className="fig text-note text-ink2">
            {torqueFigure(j.torqueBand[0], units).value} to {torqueFigure(j.torqueBand[1], units).value}
          </span>
        </>
      ),
    },
    {
      id: 'limited',
      head: 'Limited by',
      sort: j => j.limitedBy,
      cellClass: 'py-1.5',
      cell: j => j.limitedBy,
    },
  ];
  return (
    <div className="p-4 print:p-0">
      <div className="mb-2 flex items-center justify-between gap-3">
        <h2 className="text-title font-bold">
          Torques of {document.plan.name}, {buildName(build)}
        </h2>
        <Button className="print:hidden" onClick={() => window.print()}>
          <Printer size={17} aria-hidden="true" /> Print
        </Button>
      </div>
      <p className="max-w-3xl text-small text-ink2">
        Clean threads. K varies: the bar shows the torques that may give the same clamp, 35 % of clamp either
        way dry, 25 % lubricated. The vehicle maker’s value, where one was entered, wins. Estimates, not
        certificates.
      </p>
      <DataTable
        className="mt-2 w-full text-body"
        headClass="border-b border-ink text-left align-bottom"
        columns={columns}
        rows={joints}
        rowKey={j => j.id}
        rowClass={() => 'border-b border-scribe/70'}
      />
    </div>
  );
}
