import { BODIES, type Body, measuresOf, startingRig, typicalMeasures } from '@plate-fold/core/rig';
import { Link, useParams } from 'react-router';
import { Button } from '../../ui/button';
import { BODY_NAMES } from '../../ui/names';
import { Tape } from './tape';

/** The empty measuring sheet for the garage, to print. */
export function EmptySheet() {
  const { body = 'truck' } = useParams();
  const known: Body = BODIES.find(b => b === body) ?? 'truck';
  const measures = typicalMeasures(known);
  const rig = startingRig(known);
  return (
    <main data-theme="light" className="mx-auto max-w-4xl bg-white p-6 text-black print:p-0">
      <header className="mb-3 flex items-end justify-between gap-4">
        <div>
          <h1 className="text-large font-extrabold">Measuring sheet, {BODY_NAMES[known]}</h1>
          <p>Level floor, tires at their pressure, vehicle standing. Never work under it on a jack alone.</p>
        </div>
        <div className="flex gap-2 print:hidden">
          <Button look="strong" onClick={() => window.print()}>
            Print
          </Button>
          <Link to="/" className="inline-flex min-h-11 items-center px-2 underline">
            All plans
          </Link>
        </div>
      </header>
      <p className="mb-3">Vehicle ____________________________ Date ______________ Unit: mm / in</p>
      <ol className="grid grid-cols-2 gap-x-6 max-sm:grid-cols-1">
        {measuresOf(known).map((m, i) => (
          <li
            key={m.id}
            className="grid break-inside-avoid grid-cols-[1fr_130px] gap-3 border-b border-neutral-400 py-2"
          >
            <div>
              <p className="leading-tight">
                <b>
                  {i + 1} {m.name}
                </b>
              </p>
              <p className="text-note leading-tight text-neutral-700">{m.how}</p>
              <p className="mt-2">_____________ {m.unit === 'kg' ? 'kg / lb' : ''}</p>
            </div>
            <Tape measure={m} measures={measures} rig={rig} width={130} height={64} />
          </li>
        ))}
      </ol>
    </main>
  );
}
