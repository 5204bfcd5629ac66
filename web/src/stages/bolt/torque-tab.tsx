import { lengthName } from '@plate-fold/core/bolt';
import { fixed, formatTorque, torqueFigure } from '@plate-fold/core/units';
import { Printer } from 'lucide-react';
import { useFacts } from '../../state/derived';
import { useApp } from '../../state/store';
import { Button } from '../../ui/button';
import { Fig } from '../../ui/figure';

/** Every joint's torque with its band and what limits it, for the wall of the garage. */
export function TorqueTab() {
  const { joints, document, build } = useFacts();
  const units = useApp(s => s.view.units);
  const most = Math.max(1, ...joints.map(j => j.torqueBand[1]));
  const share = (nm: number): string => `${(100 * nm) / most}%`;
  return (
    <div className="p-4 print:p-0">
      <div className="mb-2 flex items-center justify-between gap-3">
        <h2 className="text-[17px] font-bold">
          Torques of {document.plan.name}, build {build.id}
        </h2>
        <Button className="print:hidden" onClick={() => window.print()}>
          <Printer size={17} aria-hidden="true" /> Print
        </Button>
      </div>
      <p className="max-w-3xl text-[13px] text-ink2">
        Clean threads, as said under K. Nobody knows K closely: the bar is where the same clamp may need a
        wrench to stand, 35 % of clamp either way on a dry thread, 25 % on a lubricated one. The vehicle
        maker’s value, where one was entered, wins. Estimates, not certificates.
      </p>
      <table className="mt-2 w-full text-[14px]">
        <thead>
          <tr className="border-b border-ink text-left align-bottom">
            <th scope="col" className="py-1 pr-3">
              Joint
            </th>
            <th scope="col" className="py-1 pr-3">
              Bolt
            </th>
            <th scope="col" className="py-1 pr-3">
              On the thread
            </th>
            <th scope="col" className="py-1 pr-3 text-right">
              Torque
            </th>
            <th scope="col" className="w-1/4 py-1 pr-3 max-desk:hidden">
              Band
            </th>
            <th scope="col" className="py-1">
              Limited by
            </th>
          </tr>
        </thead>
        <tbody>
          {joints.map(j => (
            <tr key={j.id} className="border-b border-scribe/70">
              <th scope="row" className="fig py-1.5 pr-3 text-left">
                {j.id}
              </th>
              <td className="fig py-1.5 pr-3">
                {j.thread.designation} × {lengthName(j.lengthMm, j.thread)}
              </td>
              <td className="py-1.5 pr-3">
                {j.joint.lube}, K {fixed(j.kFactor, 2)}
                {j.prevailingNm > 0 && (
                  <span className="block text-[12px] text-ink2">
                    with {formatTorque(j.prevailingNm, units)} for the nut’s lock
                  </span>
                )}
              </td>
              <td className="py-1.5 pr-3 text-right text-[16px]">
                <Fig of={torqueFigure(j.torqueNm, units)} />
              </td>
              <td className="py-1.5 pr-3 max-desk:hidden">
                <div className="relative h-4" aria-hidden="true">
                  <div
                    className="absolute inset-y-1 rounded-[2px] bg-scribe"
                    style={{ left: share(j.torqueBand[0]), width: share(j.torqueBand[1] - j.torqueBand[0]) }}
                  />
                  <div className="absolute inset-y-0 w-0.5 bg-ink" style={{ left: share(j.torqueNm) }} />
                </div>
                <span className="fig text-[12px] text-ink2">
                  {torqueFigure(j.torqueBand[0], units).value} to {torqueFigure(j.torqueBand[1], units).value}
                </span>
              </td>
              <td className="py-1.5">{j.limitedBy}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
