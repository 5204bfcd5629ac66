import { yupResolver } from '@hookform/resolvers/yup';
import {
  drillName,
  goesRound,
  jointNotes,
  postDepth,
  type ResolvedJoint,
  toolName,
  toolsFor,
} from '@plate-fold/core/bolt';
import { changeJoints, type Lube, panelNamed, stackedIn, topPlateOf } from '@plate-fold/core/plan';
import { memberName } from '@plate-fold/core/rig';
import { nutReaches } from '@plate-fold/core/sequence';
import {
  fixed,
  formatLength,
  formatTorque,
  lengthFigure,
  N_PER_LBF,
  parseTorque,
  torqueFigure,
} from '@plate-fold/core/units';
import { useMemo } from 'react';
import { useForm } from 'react-hook-form';
import * as yup from 'yup';
import { isPost, isRoundTube, isStrap } from '../../picture/stack-layout';
import { FindingCard } from '../../shared/finding-card';
import { useRun } from '../../state/commands/run';
import { selectFindings, useFacts } from '../../state/derived';
import { useAppSelector } from '../../state/store';
import { Button } from '../../ui/button';
import { Fig, Row } from '../../ui/figure';
import { How } from '../../ui/how';
import { CONDITION_NAMES, LUBE_NAMES, REACH_NAMES } from '../../ui/names';
import { Select } from '../../ui/select';
import { typedTorque } from '../../ui/typed';
import { JointBears } from './joint-bears';
import { JointHardware } from './joint-hardware';
import { RepairCard } from './repair-card';
import { useShares } from './use-shares';

/** More than this breaks any bolt under a vehicle, N·m: a wrong unit. */
const MOST_ENTERED = 400;

/** The vehicle maker's torque: entered, it wins over ours. */
function TorqueEntry({ joint }: { joint: ResolvedJoint }) {
  const run = useRun();
  const units = useAppSelector(s => s.view.units);
  const entered = joint.joint.torque !== 'auto';
  const set = (torque: 'auto' | number) =>
    run(changeJoints, { joints: [{ joint: joint.id, part: { torque } }] });
  const form = useForm({
    defaultValues: { torque: '' },
    resolver: yupResolver(
      yup.object({
        torque: typedTorque(units, nm =>
          nm <= 0
            ? 'torque must be above zero'
            : nm > MOST_ENTERED
              ? `${formatTorque(nm, units)} would break any of these bolts. Check the unit`
              : undefined,
        ),
      }),
    ),
  });
  const fault = form.formState.errors.torque?.message;
  return (
    <form
      className="mt-2"
      onSubmit={e =>
        void form.handleSubmit(({ torque }) => {
          const t = parseTorque(torque, units);
          if (t.ok && set(t.value)) form.reset();
        })(e)
      }
    >
      <label className="block text-small text-ink2" htmlFor="maker-torque">
        The vehicle maker’s value, if there is one, comes first
      </label>
      <div className="mt-1 flex gap-1.5">
        <input
          id="maker-torque"
          {...form.register('torque')}
          aria-invalid={fault !== undefined}
          placeholder={units === 'inch' ? '30 ft·lb' : '40 N·m'}
          className="fig min-h-11 w-full min-w-0 rounded-edge border border-scribe bg-paper px-2.5 placeholder:text-ink2"
        />
        <Button type="submit" disabled={form.watch('torque').trim() === ''}>
          Enter
        </Button>
        {entered && <Button onClick={() => set('auto')}>Ours</Button>}
      </div>
      {fault && (
        <p role="alert" className="mt-1 text-small text-oxide">
          {fault}
        </p>
      )}
    </form>
  );
}

/** Everything decided about one joint. */
export function JointCard({ joint: j }: { joint: ResolvedJoint }) {
  const facts = useFacts();
  const run = useRun();
  const units = useAppSelector(s => s.view.units);
  const asked = useShares(facts);
  const findings = useAppSelector(selectFindings).filter(f => f.about.includes(j.id));
  const marks = stackedIn(j.joint).map(p => panelNamed(facts.document, p));
  const top = topPlateOf(j.joint);
  const notes = jointNotes(j, marks);
  const reaches = useMemo(() => nutReaches(facts.document, facts.panels, facts.joints), [facts]);
  const [play, across] = notes.playMm;
  const [low, high] = j.torqueBand;
  const band = [torqueFigure(low, units).value, torqueFigure(high, units).value];
  const force =
    units === 'inch'
      ? { value: fixed(j.preloadN / N_PER_LBF, 0), unit: 'lbf' }
      : { value: fixed(j.preloadN / 1000, 1), unit: 'kN' };
  return (
    <div className="p-4">
      <h2 className="text-head font-bold">
        <span className="fig">{j.id}</span>, {marks.join(' under ')}
      </h2>
      <p className="text-small text-ink2">
        {j.member
          ? `${goesRound(j.joint) ? 'round' : top === undefined ? 'into' : 'through'} the ${memberName(facts.rig, j.member.id)}${top === undefined ? '' : ` into top plate ${facts.document.plan.panels.find(p => p.id === top)?.mark ?? top}`}`
          : 'into its own hole'}
        {isStrap(j) ? '' : `, head ${j.joint.headSide}`}
        {j.joint.tightenBefore === 'hang' ? ', tightened before the plate goes up' : ''}
      </p>
      <div className="my-3 border-y border-ink2 py-2">
        <Fig of={torqueFigure(j.torqueNm, units)} className="text-giant leading-none font-semibold" />
        <p className="text-small">
          <How of="torque">How this was computed</How>
        </p>
        <p className="mt-1.5 text-small leading-snug text-ink2">
          Limited by: <b className="text-ink">{j.limitedBy}</b>. K varies: the same clamp may take {band[0]}{' '}
          to {band[1]}. An estimate, not a certificate.
        </p>
      </div>
      <dl>
        <Row
          name="Clamp"
          how="clamp"
          of={force}
          meaning={`K = ${fixed(j.kFactor, 2)}, ${LUBE_NAMES[j.joint.lube]}${j.prevailingNm > 0 ? `; ${formatTorque(j.prevailingNm, units)} of the torque turns the lock nut` : ''}`}
        />
        <Row name="Grip" how="grip" of={lengthFigure(j.gripMm, units, true)} meaning="everything it clamps" />
        <Row
          name={isStrap(j) ? 'Legs below the tube' : 'Bolt'}
          how="bolt-length"
          of={lengthFigure(j.lengthMm, j.thread.system === 'inch' ? 'inch' : 'metric')}
          meaning={`stock; ${lengthFigure(j.neededMm, units, true).value} ${lengthFigure(j.neededMm, units, true).unit} needed`}
        />
        {isPost(j) || isRoundTube(j) ? (
          <Row
            name={isPost(j) ? 'Into the post' : 'Into the foot'}
            how="protrusion"
            of={lengthFigure(j.lengthMm - j.gripMm, units, true)}
            meaning={`of ${formatLength(postDepth(j.joint.spacer), units, true)} tapped`}
          />
        ) : (
          <Row
            name="Thread past the nut"
            how="protrusion"
            of={lengthFigure(j.protrusionMm, units, true)}
            meaning="past the nut or tapped hole"
          />
        )}
      </dl>
      <ul className="mt-1.5 grid gap-1 text-small leading-snug">
        <li>{notes.direction}</li>
        <li>{reaches.get(j.id)?.said}</li>
        {notes.shared && <li>{notes.shared}</li>}
        <li>
          Play in its holes <Fig of={lengthFigure(play, units, true)} />{' '}
          {Math.abs(play - across) < 0.05 ? (
            'to each side'
          ) : (
            <>
              fore and aft and <Fig of={lengthFigure(across, units, true)} /> across
            </>
          )}{' '}
          for centering.
        </li>
      </ul>
      {goesRound(j.joint) && (
        <p className="mt-1.5 text-small text-ink2">It goes round: nothing is drilled.</p>
      )}
      {j.mount && !goesRound(j.joint) && (
        <p className="mt-1.5 text-small text-ink2">
          Hole <span className="fig text-ink">{j.mount.id}</span>: {j.mount.hole.kind.replace('-', ' ')},{' '}
          {CONDITION_NAMES[j.mount.condition]}; the nut {REACH_NAMES[j.mount.nutReach]}.
        </p>
      )}
      <RepairCard joint={j} facts={facts} />
      <JointBears joint={j} facts={facts} units={units} asked={asked[j.id]} />
      {j.drill.length > 0 && (
        <section className="mt-3" aria-label="Drilling">
          <h3 className="font-bold">Drill</h3>
          <p className="fig">punch, {j.drill.map(d => drillName(d, units)).join(', ')}</p>
          {j.mount?.behind && (
            <p className="text-small text-ink2">
              Behind it, {lengthFigure(j.mount.behind.depth, units).value}{' '}
              {lengthFigure(j.mount.behind.depth, units).unit} in:{' '}
              {facts.rig.components.find(c => c.id === j.mount?.behind?.component)?.name}. Eye protection; a
              stop on the drill.
            </p>
          )}
        </section>
      )}
      <section className="mt-3" aria-label="Tools">
        <h3 className="font-bold">Tools</h3>
        <p>
          {toolsFor(j)
            .map(t => toolName(t, units))
            .join(', ')}
        </p>
      </section>
      <JointHardware joint={j} units={units} />
      <section className="mt-3" aria-label="Thread and torque">
        <h3 className="font-bold">On the threads</h3>
        <Select
          label="On the threads"
          value={j.joint.lube}
          choices={(['dry', 'oil', 'anti-seize', 'threadlocker'] as const).map((l: Lube) => ({
            value: l,
            name: LUBE_NAMES[l],
          }))}
          onChoose={lube => run(changeJoints, { joints: [{ joint: j.id, part: { lube } }] })}
          className="mt-1 w-full"
        />
        <TorqueEntry joint={j} />
      </section>
      {findings.length > 0 && (
        <ul className="mt-4 grid gap-2" aria-label="Findings on this joint">
          {findings.map(f => (
            <FindingCard key={f.text} finding={f} />
          ))}
        </ul>
      )}
    </div>
  );
}
