import {
  fixed,
  type Move,
  NM_PER_LBF_FT,
  parseTorque,
  type ResolvedJoint,
  type Turn,
  torqueFigure,
  type UnitSystem,
  wrenchTolerance,
} from '@plate-fold/core';
import { useEffect, useState } from 'react';
import { useWrench } from './use-wrench';
import { WrenchPull } from './wrench-pull';

/** How a reading compares with its target as it is shown on the screen, in words. Both in N·m. */
export function judge(reading: number, target: number, units: UnitSystem): { near: boolean; text: string } {
  const per = units === 'inch' ? NM_PER_LBF_FT : 1;
  const { value, unit } = torqueFigure(target, units);
  const want = Number(value);
  const off = reading / per - want;
  if (Math.abs(off) <= wrenchTolerance(target) * want + 1e-9) return { near: true, text: 'on target' };
  return { near: false, text: `${fixed(Math.abs(off), 1)} ${unit} ${off > 0 ? 'over' : 'under'}` };
}

/** The torque to reach, large, with the reading of the wrench beside it. */
export function TorqueTarget(props: {
  readonly move: Move;
  readonly joint: ResolvedJoint;
  readonly units: UnitSystem;
  readonly recorded?: number;
  readonly onReading: (nm: number | undefined) => void;
  readonly onEnter: () => void;
  /** what the digital wrench made of a pull; undefined once a figure is typed instead */
  readonly onTurn: (turn: Turn | undefined) => void;
}) {
  const { move, joint, units, recorded, onReading, onEnter, onTurn } = props;
  const { step } = move;
  const [typed, setTyped] = useState('');
  const target = step.torqueNm ?? 0;
  const digital = useWrench(target);
  const { turn } = digital.wrench;
  useEffect(() => {
    if (!turn) return;
    setTyped('');
    onReading(turn.peakNm);
    onTurn(turn);
  }, [turn, onReading, onTurn]);
  const figure = torqueFigure(target, units);
  const other = torqueFigure(target, units === 'inch' ? 'metric' : 'inch');
  const parsed = typed.trim() === '' ? undefined : parseTorque(typed, units);
  const reading = parsed?.ok ? parsed.value : (turn?.peakNm ?? recorded);
  const verdict = reading === undefined ? undefined : judge(reading, target, units);
  return (
    <section aria-label="Torque" className="mt-3">
      <p className="flex items-baseline gap-3 leading-none">
        <span className="fig text-[76px] font-semibold tracking-tight">{figure.value}</span>
        <span className="text-[22px] font-semibold">{figure.unit}</span>
        <span className="text-[15px] text-ink2">
          {other.value} {other.unit}
        </span>
      </p>
      <p className="mt-2 text-[16px]">
        <b>
          Pass {step.pass} of {step.passes}
        </b>
        , {Math.round((step.share ?? 1) * 100)} % · limited by {joint.limitedBy}
      </p>
      {step.impact && (
        <p className="text-[15px] text-ink2">
          {step.impact === 'never'
            ? 'No impact wrench here.'
            : 'An impact wrench may run it in; stop when it slows.'}
        </p>
      )}
      <div className="mt-2 flex items-center gap-3">
        <label htmlFor="reading" className="text-[16px]">
          Wrench reads
        </label>
        <input
          id="reading"
          inputMode="decimal"
          autoComplete="off"
          value={typed}
          placeholder={recorded === undefined ? '' : torqueFigure(recorded, units).value}
          onChange={e => {
            setTyped(e.target.value);
            if (turn) digital.forget();
            onTurn(undefined);
            const p = e.target.value.trim() === '' ? undefined : parseTorque(e.target.value, units);
            onReading(p?.ok && p.value > 0 ? p.value : undefined);
          }}
          onKeyDown={e => {
            if (e.key !== 'Enter' || (parsed && !parsed.ok)) return;
            e.preventDefault();
            onEnter();
          }}
          className="fig h-12 w-24 rounded-[4px] border border-scribe bg-paper px-3 text-[19px]"
        />
        <span
          role="status"
          className={`text-[15px] ${verdict && !verdict.near ? 'font-bold text-oxide' : ''}`}
        >
          {parsed && !parsed.ok ? parsed.fault : (verdict?.text ?? 'if it shows a figure')}
        </span>
      </div>
      <WrenchPull of={digital} targetNm={target} units={units} />
    </section>
  );
}
