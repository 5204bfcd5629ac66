import { lastSet } from '@plate-fold/core/log';
import { parseTorque, torqueFigure } from '@plate-fold/core/units';
import { useState } from 'react';
import { FIELD, type FormProps } from './form-props';

/** The torque each bolt stood at and what it was brought back to. */
export function Readings({
  facts,
  units,
  log,
  draft,
  onChange,
}: Pick<FormProps, 'facts' | 'units' | 'log' | 'draft' | 'onChange'>) {
  const sets = lastSet(log, new Map(facts.joints.map(j => [j.id, j.torqueNm])));
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>(() =>
    Object.fromEntries((draft.readings ?? []).map(r => [r.joint, torqueFigure(r.found, units).value])),
  );
  const enter = (joint: string, text: string): void => {
    setTyped(t => ({ ...t, [joint]: text }));
    const set = sets.get(joint) ?? 0;
    const read = parseTorque(text, units);
    const rest = (draft.readings ?? []).filter(r => r.joint !== joint);
    onChange({
      ...draft,
      readings:
        text.trim() !== '' && read.ok ? [...rest, { joint, set, found: read.value, after: set }] : rest,
    });
  };
  return (
    <table className="w-full text-body">
      <thead className="text-left text-ink2">
        <tr className="border-b border-ink2">
          <th scope="col" className="py-1 font-normal">
            Bolt
          </th>
          <th scope="col" className="py-1 pr-2 text-right font-normal">
            Set
          </th>
          <th scope="col" className="py-1 font-normal">
            Moved at
          </th>
        </tr>
      </thead>
      <tbody>
        {facts.joints.map(j => {
          const text = typed[j.id] ?? '';
          const read = text.trim() === '' ? undefined : parseTorque(text, units);
          return (
            <tr key={j.id} className="border-b border-scribe/70">
              <th scope="row" className="fig py-1 text-left">
                {j.id}
              </th>
              <td className="fig py-1 pr-2 text-right">{torqueFigure(sets.get(j.id) ?? 0, units).value}</td>
              <td className="py-0.5">
                <input
                  aria-label={`${j.id} moved at`}
                  inputMode="decimal"
                  value={text}
                  aria-invalid={read !== undefined && !read.ok}
                  onChange={e => enter(j.id, e.target.value)}
                  className={`fig ${FIELD} ${read && !read.ok ? 'border-oxide' : ''}`}
                />
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
