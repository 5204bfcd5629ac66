import type { Facts } from '@plate-fold/core/derive';
import type { Vec2, Vec3 } from '@plate-fold/core/geometry';
import { wholeSurvey } from '@plate-fold/core/rig';
import { heightOver, holeFromScan, partFromScan, regionAt } from '@plate-fold/core/scan';
import {
  type AdjustedReading,
  adjustmentOf,
  agreementWords,
  changeReading,
  looseWords,
  type NextReading,
  namesOf,
  nextReadings,
  nextWords,
  removeReading,
  suspectWords,
  wanted,
} from '@plate-fold/core/survey';
import { tapeLength } from '@plate-fold/core/units';
import { Printer } from 'lucide-react';
import { useMemo, useState } from 'react';
import { PickLayer } from '../../picture/pick-layer';
import { useSize } from '../../picture/use-size';
import { Pannable, ZoomButtons } from '../../shared/bench';
import { useGroundScan, useScanHeights } from '../../shared/use-scan';
import { useRun } from '../../state/commands/run';
import { useAppSelector } from '../../state/store';
import { Button } from '../../ui/button';
import type { Taking } from './laid-scan';
import { Part } from './part';
import { PhotoMarker } from './photo-marker';
import { PhotosPart } from './photos-part';
import { PointsPart } from './points-part';
import { type Reading, ReadingForm } from './reading-form';
import { ReadingsPart, readingRows } from './readings-part';
import { ScanMarker } from './scan-marker';
import { type Laying, ScanPart } from './scan-part';
import { SurveyMap } from './survey-map';
import { SurveyPrint } from './survey-print';
import { type Under, UnderPart } from './under-part';
import { photoAt, useGroundPhoto } from './use-ground-photo';
import { useSurveySheet } from './use-survey-sheet';

/** Survey: what the tape reads from hole to hole, adjusted; how well each hole is known, which reading is wrong, what to measure next. */
export function SurveyTab(props: { readonly facts: Facts; readonly height: number }) {
  const { facts, height } = props;
  const [box, size] = useSize<HTMLDivElement>();
  const sheet = useSurveySheet(adjustmentOf(facts.document), size.width, Math.max(280, height));
  const units = useAppSelector(s => s.view.units);
  const run = useRun();
  const [reading, setReading] = useState<Reading>({ kind: 'tape', from: '', to: '', axis: 'x' });
  const [point, setPoint] = useState<string>();
  const [photo, setPhoto] = useState<string>();
  const [marking, setMarking] = useState<string>();
  const [under, setUnder] = useState<Under>();
  const [laying, setLaying] = useState<Laying>();
  const [taking, setTaking] = useState<Taking>();
  const [takeFault, setTakeFault] = useState<string>();
  const { rig } = facts.document;
  const survey = wholeSurvey(rig.survey);
  const adjustment = adjustmentOf(facts.document);
  const next = useMemo(() => nextReadings(adjustment.solution), [adjustment]);
  const names = namesOf([
    ...survey.points,
    ...rig.mounts.filter(m => !survey.points.some(p => p.id === m.id)).map(m => ({ id: m.id })),
  ]);
  const points = [...names]
    .map(([id, name]) => [id, name] as const)
    .sort((a, b) => a[1].localeCompare(b[1], 'en', { numeric: true }));
  const rows = readingRows(rig.survey, adjustment);
  const [worst, ...others] = adjustment.suspects.map(i => adjustment.readings[i] as AdjustedReading);
  const worstRow = worst && rows.find(r => r.told === worst);
  const take = (n: NextReading): void =>
    setReading({
      ...reading,
      kind: n.kind === 'distance' ? 'tape' : 'height',
      from: n.from ?? n.point ?? '',
      to: n.to ?? '',
    });
  const empty = survey.points.length === 0;
  const plan = facts.document.plan.id;
  const opened = survey.photos.find(p => p.id === photo);
  const scanned = useScanHeights(plan, rig.scan);
  const groundPhoto = useGroundPhoto(plan, adjustment, under === 'scan' ? undefined : under);
  const groundScan = useGroundScan(under === 'scan' ? scanned.heights : undefined);
  const ground = under === 'scan' ? groundScan : groundPhoto;
  const placeOf = (id: string): Vec3 | undefined =>
    adjustment.points.find(p => p.id === id)?.at ?? rig.mounts.find(m => m.id === id)?.at;
  /** what a press on the map takes from the scan */
  const pressed = (at: Vec2): void => {
    const { heights } = scanned;
    if (!taking || !heights) return;
    const z = heightOver(heights, at);
    const region = 'hole' in taking ? undefined : regionAt(heights, at);
    if (z === undefined || (region && !region.ok)) {
      setTakeFault(region && !region.ok ? region.fault : 'the scan shows nothing at that place');
      return;
    }
    setTakeFault(undefined);
    if ('hole' in taking) run(holeFromScan, { mount: taking.hole, at: [at[0], at[1], z] });
    else if (region?.ok) run(partFromScan, { ...taking, region: region.value });
    setTaking(undefined);
  };
  const high = Math.max(280, height);
  /** the next point that has no mark yet on the picture that is open */
  const unmarked = (done: string): string | undefined => {
    const has = new Set([done, ...(opened?.marks.map(m => m.point) ?? [])]);
    return points.find(([id]) => survey.points.some(p => p.id === id) && !has.has(id))?.[0];
  };
  const scanPart = (
    <ScanPart
      plan={plan}
      rig={rig}
      points={points}
      placeOf={placeOf}
      names={names}
      units={units}
      laying={laying}
      onLaying={setLaying}
      point={marking}
      onPoint={setMarking}
      taking={taking}
      onTaking={t => {
        setTaking(t);
        setTakeFault(undefined);
        if (t) setUnder('scan');
      }}
      fault={takeFault ?? scanned.fault}
    />
  );
  const photosPart = (
    <PhotosPart
      plan={plan}
      photos={survey.photos}
      adjustment={adjustment}
      names={names}
      points={points}
      open={photo}
      onOpen={setPhoto}
      point={marking}
      onPoint={setMarking}
    />
  );
  return (
    <div className="flex min-h-0 min-w-0 flex-1 max-desk:flex-col">
      <SurveyPrint name={rig.name} adjustment={adjustment} next={next} names={names} units={units} />
      <div className="w-[400px] shrink-0 overflow-auto border-r border-scribe bg-sheet max-desk:w-full max-desk:border-r-0">
        {laying ? (
          scanPart
        ) : opened ? (
          photosPart
        ) : (
          <ReadingForm reading={reading} onReading={setReading} points={points} units={units} />
        )}
        {empty && (
          <Part title="Measure from hole to hole">
            <p className="text-small">
              Hook the tape on one hole and read it at another; add a height for each. Nothing has to be
              square. First hold two or three holes that you trust, below: all others are found from them.
            </p>
          </Part>
        )}
        {!empty && (
          <Part title="What the readings say">
            {worst && (
              <div className="mb-2 border border-l-[6px] border-oxide/60 border-l-oxide bg-oxidesoft p-2.5">
                <p role="status" className="font-semibold">
                  {suspectWords(worst, names, units)}.
                </p>
                {others.length > 0 && (
                  <p className="text-small text-ink2">
                    {others.length} more {others.length === 1 ? 'looks' : 'look'} odd, likely because of it.
                  </p>
                )}
                {worstRow && (
                  <div className="mt-2 flex flex-wrap gap-2">
                    <Button onClick={() => run(changeReading, { ...worstRow, mm: wanted(worst) })}>
                      Take it as {tapeLength(wanted(worst), units)}
                    </Button>
                    <Button onClick={() => run(removeReading, worstRow)}>Take it out</Button>
                  </div>
                )}
              </div>
            )}
            <p className="text-small">{agreementWords(adjustment)}</p>
            {looseWords(adjustment.loose, names).map(words => (
              <p key={words} className="mt-1 text-small text-oxide">
                {words}
              </p>
            ))}
          </Part>
        )}
        {!opened && photosPart}
        {!laying && scanPart}
        <UnderPart
          photos={survey.photos}
          scan={rig.scan?.name}
          adjustment={adjustment}
          units={units}
          under={under}
          onUnder={setUnder}
        />
        {next.length > 0 && (
          <Part title="Measure next">
            <ol className="grid gap-1">
              {next.map(n => (
                <li key={nextWords(n, names, units)}>
                  <button
                    type="button"
                    className="min-h-11 w-full rounded-edge border border-scribe bg-paper px-3 py-1.5 text-left text-small hover:border-ink2"
                    onClick={() => take(n)}
                  >
                    {nextWords(n, names, units)}
                  </button>
                </li>
              ))}
            </ol>
          </Part>
        )}
        <ReadingsPart rows={rows} worst={worstRow} names={names} units={units} />
        <PointsPart
          rig={rig}
          adjustment={adjustment}
          points={points}
          point={point}
          onPoint={setPoint}
          units={units}
        />
        <div className="p-3">
          <Button onClick={() => window.print()}>
            <Printer size={17} aria-hidden="true" /> Print
          </Button>
        </div>
      </div>
      <div ref={box} className={`min-w-0 flex-1 ${opened || laying?.look ? 'max-desk:order-first' : ''}`}>
        {laying?.look ? (
          <ScanMarker
            key={laying.view}
            laying={laying}
            onLaying={setLaying}
            width={Math.max(size.width, 1)}
            height={high}
            names={names}
            point={marking}
            onPoint={setMarking}
          />
        ) : opened ? (
          <PhotoMarker
            key={opened.id}
            photo={opened}
            url={photoAt(plan, opened.id)}
            adjustment={adjustment}
            width={Math.max(size.width, 1)}
            height={high}
            names={names}
            point={marking}
            onPoint={setMarking}
            onMarked={id => setMarking(unmarked(id))}
          />
        ) : (
          <Pannable sheet={sheet}>
            <SurveyMap
              facts={facts}
              adjustment={adjustment}
              scale={sheet.scale}
              height={high}
              point={point}
              onPoint={setPoint}
              ground={ground}
            >
              {taking && <PickLayer scale={sheet.scale} height={high} holes={[]} onPick={pressed} />}
            </SurveyMap>
            <ZoomButtons sheet={sheet} />
          </Pannable>
        )}
      </div>
    </div>
  );
}
