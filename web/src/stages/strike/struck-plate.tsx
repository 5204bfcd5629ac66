import { jointCapacity } from '@plate-fold/core/bolt';
import { asAtRest, HEARD_BELOW, jointShare } from '@plate-fold/core/checks';
import type { Vec2 } from '@plate-fold/core/geometry';
import { isBracket } from '@plate-fold/core/plan';
import { punchForce, SHARP_NOSE } from '@plate-fold/core/sheet';
import { DENT_ERROR, type JointState, type StrikeAnswer } from '@plate-fold/core/strike';
import {
  type Figure,
  figureText,
  fixed,
  lengthFigure,
  loadFigure,
  sentence,
  stressFigure,
} from '@plate-fold/core/units';
import { DentsFrom } from '../../shared/dents-from';
import { ScanRow } from '../../shared/scan-row';
import { useFacts } from '../../state/derived';
import { useAppSelector } from '../../state/store';
import type { Blow, Struck } from '../../state/strikes/use-strikes';
import { Button } from '../../ui/button';
import { Row } from '../../ui/figure';
import { MeasureInput } from '../../ui/measure-input';
import { sheetName } from '../../ui/names';
import { Help } from './help';

const STATES: Readonly<Record<JointState, string>> = {
  held: 'held by friction',
  slipped: 'slipped in its hole',
  bearing: 'bears on its shank',
};
/** What a rock does to one plate, and where it stands. */
export function StruckPlate({
  struck,
  other,
  builds,
  blow,
  ready,
  selected,
  onPlace,
}: {
  struck: Struck;
  /** the same plate of the build beside */
  other: Struck | undefined;
  builds: readonly string[];
  blow: Blow;
  ready: boolean;
  selected: boolean;
  onPlace: (at: Vec2 | undefined) => void;
}) {
  const facts = useFacts();
  const units = useAppSelector(s => s.view.units);
  const { folded, answer } = struck;
  const { panel } = folded;
  const moved = blow.places[panel.id] !== undefined;
  const frame = `border-t pt-2 ${selected ? 'border-fluid border-t-[3px]' : 'border-scribe'}`;
  const head = (
    <h3 className="flex justify-between gap-2 font-bold">
      <span>
        {panel.mark} {panel.name}
      </span>
      <span className="text-small font-normal text-ink2">{sheetName(folded.sheet)}</span>
    </h3>
  );
  const back = (
    <Button className="mt-2 w-full" onClick={() => onPlace(undefined)}>
      Back to the worst spot
    </Button>
  );
  if (!answer)
    return (
      <li className={frame}>
        {head}
        <p className="text-ink2">striking …</p>
      </li>
    );
  if (!answer.ok)
    return (
      <li className={frame}>
        {head}
        {struck.refused ? (
          <p className="py-1.5 text-body text-ink2 first-letter:uppercase">{answer.fault}.</p>
        ) : (
          <p role="alert" className="border-l-[6px] border-oxide bg-oxidesoft px-3 py-2">
            No answer: {answer.fault}.
          </p>
        )}
        {moved && back}
      </li>
    );
  const v = answer.value;
  const part = facts.rig.components.find(c => c.id === v.gapTo);
  const resting =
    v.gapMm !== undefined &&
    v.gapTo !== undefined &&
    asAtRest(facts, panel.id, { component: v.gapTo, gapMm: v.gapMm });
  const touches = v.gapMm !== undefined && v.gapMm < 0;
  const size = (mm: number) => lengthFigure(mm, units, units === 'metric');
  const load = (n: number): string => figureText(loadFigure(n, units));
  const punch = punchForce(folded.material, folded.sheet.thickness);
  const yields = stressFigure(v.yieldMPa, units);
  const worst = v.reactionsN
    .flatMap(r => {
      const joint = facts.joints.find(j => j.id === r.joint);
      return joint ? [{ r, share: jointShare(r, jointCapacity(joint, facts.panels)) }] : [];
    })
    .sort((x, y) => y.share - x.share)[0];
  return (
    <li className={frame}>
      {head}
      {struck.stale && <p className="text-small text-ink2">quick result; striking in full …</p>}
      {v.reaches !== undefined && (
        <p className="text-small text-ink2">
          {fixed(v.reaches * 100, 0)} % of the rock’s force reaches it here; the rest lies on plates below it.
        </p>
      )}
      {v.reached < 1 && (
        <p role="alert" className="mt-1 border-l-[6px] border-oxide bg-oxidesoft px-3 py-2 text-body">
          It collapses: figures are for {fixed(v.reached * 100, 0)} % of the force, the last load it held.
        </p>
      )}
      {v.fall && !v.fall.stops && (
        <p role="alert" className="mt-1 border-l-[6px] border-oxide bg-oxidesoft px-3 py-2 text-body">
          It does not stop the fall: it collapses first. Figures are for the most it held.
        </p>
      )}
      <dl>
        {v.fall && (
          <Row
            name="Struck with"
            how="fall"
            of={loadFigure(v.forceN, units)}
            meaning={`${fixed(v.forceN / v.fall.weightN, 1)} times the falling weight`}
          />
        )}
        <Row name="Deflection" how="deflection" of={size(v.deflectionMm)} meaning={v.theory} />
        {v.gapMm !== undefined && (
          <Row
            name="Clearance"
            how="gap-struck"
            of={size(v.gapMm)}
            meaning={
              touches ? (
                <b className="text-oxide">
                  it reaches the {part?.name ?? v.gapTo}
                  {resting && ', as it does at rest'}
                </b>
              ) : (
                `to the ${part?.name ?? v.gapTo}`
              )
            }
          />
        )}
        <ScanRow folded={folded} struck={v.picture} />
        <Row
          name="Stress"
          how="stress"
          of={{ value: fixed((v.vonMisesMPa / v.yieldMPa) * 100, 0), unit: '%' }}
          meaning={`of yield, ${yields.value} ${yields.unit}, away from bolts`}
        />
        <Row
          name="Dent"
          how="dent"
          of={v.dentMm === undefined ? { value: '–', unit: '' } : size(v.dentMm)}
          meaning={
            v.dentMm === undefined
              ? struck.stale
                ? 'computing'
                : 'it yields; dent not found'
              : `after the rock is gone; ± ${fixed(100 * DENT_ERROR, 0)} % by the mesh`
          }
        />
        {v.dentMm !== undefined && <DentsFrom answer={v} units={units} />}
        <Row
          name="Sharp rock"
          how="sharp-rock"
          of={loadFigure(punch, units)}
          meaning={
            punch < v.forceN ? (
              <b className="text-oxide">
                this force on a {lengthFigure(SHARP_NOSE, units).value} {lengthFigure(SHARP_NOSE, units).unit}{' '}
                nose goes through
              </b>
            ) : (
              `punches a hole of ${lengthFigure(SHARP_NOSE, units).value} ${lengthFigure(SHARP_NOSE, units).unit}; a ragged rock tears sooner`
            )
          }
        />
        <Row
          name="Lowest vibration"
          how="vibration"
          of={{ value: fixed(v.ringHz, 0), unit: 'Hz' }}
          meaning={v.ringHz < HEARD_BELOW ? <b>may drum on the road</b> : 'natural frequency'}
        />
        {v.shakenShare !== undefined && (
          <Row
            name="Shaken by the road"
            how="shaken"
            of={{ value: fixed(v.shakenShare * 100, 0), unit: '%' }}
            meaning="of the sheet’s endurance limit at its bolts; compares builds, predicts no life"
          />
        )}
        {v.brackets.length > 0 && <Hangers answer={v} size={size} />}
        {worst && (
          <Row
            name="Joint"
            how="joint-share"
            of={{ value: fixed(worst.share * 100, 0), unit: '%' }}
            meaning={`of the strength of ${worst.r.joint}: ${STATES[worst.r.state]}; pulled ${load(worst.r.boltN)}${worst.r.boltN > 1.1 * worst.r.tensionN ? ' (prying)' : ''}, sheared ${load(worst.r.shearN)}`}
          />
        )}
      </dl>
      {other && (
        <Beside
          build={builds[1] ?? ''}
          answer={other.answer?.ok ? other.answer.value : undefined}
          than={v}
          size={size}
        />
      )}
      <Leans answer={v} />
      <Help facts={facts} struck={struck} blow={blow} units={units} ready={ready} />
      <details className="mt-1">
        <summary className="min-h-11 py-2.5 text-body">
          {moved ? 'The rock is where you put it' : 'The rock is at the worst spot'}
        </summary>
        <div className="grid grid-cols-2 gap-2">
          <MeasureInput
            label="Behind the front axle"
            value={v.at[0]}
            units={units}
            onEnter={x => onPlace([x, v.at[1]])}
          />
          <MeasureInput
            label="Right of center"
            value={v.at[1]}
            units={units}
            onEnter={y => onPlace([v.at[0], y])}
          />
        </div>
        {moved && back}
      </details>
    </li>
  );
}

/** The bracket, or the plate that it is bolted to, that a strike asks the most of. */
function Hangers({ answer, size }: { answer: StrikeAnswer; size: (mm: number) => Figure }) {
  const facts = useFacts();
  const [worst] = [...answer.brackets].sort(
    (a, b) => b.vonMisesMPa / b.yieldMPa - a.vonMisesMPa / a.yieldMPa,
  );
  const panel = facts.panels.find(p => p.panel.id === worst?.panel)?.panel;
  if (!worst || !panel) return null;
  const share = worst.vonMisesMPa / worst.yieldMPa;
  const rise = size(worst.riseMm);
  return (
    <Row
      name={isBracket(panel) ? 'Bracket' : 'Bolted to'}
      how="bracket-struck"
      // so far beyond, elastic sheet tells nothing but that it bends
      of={{ value: share > 3 ? '> 300' : fixed(share * 100, 0), unit: '%' }}
      meaning={
        <>
          of yield in {panel.mark}, lifted {rise.value} {rise.unit}
          {share > 1 && <b className="text-oxide">: it bends for good</b>}
        </>
      }
    />
  );
}

/** The same plate in the build beside, and by how much it differs. */
function Beside({
  build,
  answer,
  than,
  size,
}: {
  build: string;
  answer: StrikeAnswer | undefined;
  than: StrikeAnswer;
  size: (mm: number) => Figure;
}) {
  if (!answer) return <p className="mt-1 text-small text-ink2">{sentence(build)} is striking …</p>;
  const words = (mm: number, signed = false): string => {
    const f = size(mm);
    return `${signed && mm >= 0 ? '+' : ''}${f.value}\u00a0${f.unit}`;
  };
  return (
    <p className="mt-1 border-l-[3px] border-fluid pl-2 text-small">
      In {build} it deflects {words(answer.deflectionMm)} (
      {words(answer.deflectionMm - than.deflectionMm, true)})
      {answer.gapMm !== undefined && than.gapMm !== undefined && (
        <>
          , clearance {words(answer.gapMm)} ({words(answer.gapMm - than.gapMm, true)})
        </>
      )}
      {answer.dentMm !== undefined && <>, dent {words(answer.dentMm)}</>}, vibrates at{' '}
      {fixed(answer.ringHz, 0)}&nbsp;Hz.
    </p>
  );
}

/** What the plate has come up against. */
function Leans({ answer }: { answer: StrikeAnswer }) {
  const facts = useFacts();
  if (answer.leansOn.length === 0) return null;
  const names = answer.leansOn.map(
    id => facts.document.plan.crossbars.find(c => c.id === id)?.name ?? `member ${id}`,
  );
  return <p className="mt-1 text-small text-ink2">It bears on {names.join(' and ')}.</p>;
}
