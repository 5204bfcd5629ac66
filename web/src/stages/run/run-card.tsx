import { buildNameIn, type Method, setMethod } from '@plate-fold/core/plan';
import { sentence } from '@plate-fold/core/units';
import { Link } from 'react-router';
import { FindingCard } from '../../shared/finding-card';
import { useRunsQuery, useSetRunAsideMutation } from '../../state/api';
import { useRun } from '../../state/commands/run';
import { selectFindings, useFacts } from '../../state/derived';
import { selectDocument } from '../../state/select';
import { useAppSelector } from '../../state/store';
import { when } from '../../ui/dates';

import { type Choice, Select } from '../../ui/select';
import { useNarrow } from '../../ui/use-narrow';
import { PlanOffers } from './plan-offers';
import { RunStart } from './run-start';
import { aboutName } from './sequence-of';
import { ShareButton } from './share-button';
import { TimePlan } from './time-plan';

type Key = 'start' | 'drilling' | 'lift' | 'drive';

const METHODS: {
  readonly [K in Key]: {
    readonly name: string;
    readonly choices: readonly Choice<Method[K]>[];
    /** when each of them suits, a sentence */
    readonly suits: Readonly<Record<Method[K], string>>;
  };
} = {
  start: {
    name: 'Bolts are started',
    choices: [
      { value: 'front-rear-centre', name: 'front, rear, then center' },
      { value: 'rear-centre-first', name: 'rear center first' },
      { value: 'front-to-rear', name: 'front to rear' },
      { value: 'rear-to-front', name: 'rear to front' },
    ],
    suits: {
      'front-rear-centre': 'For a long plate: its ends find their holes, and the middle does not bind.',
      'rear-centre-first': 'For working alone: the plate hangs by one bolt and swings to the rest.',
      'front-to-rear': 'For a plate with the jack under its rear: the front hooks in first.',
      'rear-to-front': 'For a plate that laps under a bumper: its front slides in last.',
    },
  },
  drilling: {
    name: 'New holes',
    choices: [
      { value: 'template', name: 'drilled through the plate' },
      { value: 'mark-and-remove', name: 'marked, plate down, then drilled' },
    ],
    suits: {
      template: 'For bare sheet and a small drill: no hole can be off its mark.',
      'mark-and-remove': 'For a good finish or a big drill: the plate is out of the bit’s way.',
    },
  },
  lift: {
    name: 'Vehicle on',
    choices: [
      { value: 'ground', name: 'stands' },
      { value: 'ramps', name: 'ramps' },
      { value: 'two-post', name: 'two-post lift' },
      { value: 'side', name: 'on its side' },
    ],
    suits: {
      ground: 'Wheels free, suspension hanging: in pairs, on level, hard ground.',
      ramps: 'Wheels loaded, as it drives: quick up and down, nothing between the front wheels.',
      'two-post': 'Standing up: half the time, and a transmission jack under the plates.',
      side: 'Only a side-by-side: tipped on straps, tank empty, battery out; oil runs where it should not.',
    },
  },
  drive: {
    name: 'Bolts run in',
    choices: [
      { value: 'hand-only', name: 'by hand only' },
      { value: 'impact-then-hand', name: 'by impact, last of it by hand' },
    ],
    suits: {
      'hand-only': 'For rivet nuts and clips, which an impact strips before you notice.',
      'impact-then-hand':
        'For many plain bolts. Never on rivet nuts and wide assemblies; the run says where.',
    },
  },
};

function MethodChoice<K extends Key>({ of }: { of: K }) {
  const run = useRun();
  const method = useAppSelector(s => selectDocument(s)?.plan.method);
  const { name, choices, suits } = METHODS[of];
  if (!method) return null;
  return (
    <div>
      <span className="text-small text-ink2">{name}</span>
      <Select<Method[K]>
        label={name}
        value={method[of]}
        choices={choices}
        onChoose={v => run(setMethod, { part: { [of]: v } })}
        className="w-full"
      />
      <p className="text-note leading-snug text-ink2">{suits[method[of]]}</p>
    </div>
  );
}

/** How the job is to be done, runs so far, and the start of a new one. */
export function RunCard({
  onStep,
  about,
  onAbout,
}: {
  onStep: (id: string) => void;
  /** the phase that is fitted; null for all plates */
  about: string | null;
  onAbout: (about: string | null) => void;
}) {
  const facts = useFacts();
  const run = useRun();
  const { plan } = facts.document;
  const findings = useAppSelector(selectFindings).filter(f => f.where === 'run' || f.severity === 'stop');
  const { data: runs } = useRunsQuery(plan.id, { refetchOnMountOrArgChange: true });
  const [setAside] = useSetRunAsideMutation();
  const narrow = useNarrow();
  return (
    <div className="p-4">
      {!narrow && <RunStart about={about} onAbout={onAbout} />}
      {findings.length > 0 && (
        <ul className="mt-3 grid gap-2" aria-label="Findings before the run">
          {findings.map(f => (
            <FindingCard key={f.text} finding={f} />
          ))}
        </ul>
      )}
      {runs && runs.length > 0 && (
        <section className="mt-4" aria-label="Runs so far">
          <h3 className="font-bold">Runs so far</h3>
          <ul>
            {runs.map(r => (
              <li key={r.id}>
                <Link
                  to={`/run/${r.id}`}
                  className="flex min-h-12 items-center justify-between gap-2 border-b border-scribe/70 px-1 hover:bg-paper"
                >
                  <span>
                    {r.service === null
                      ? sentence(buildNameIn(plan, r.buildId))
                      : aboutName(facts, r.service)}
                    , started {when(r.startedAt)}
                  </span>
                  <span className="text-small text-ink2 underline">
                    {r.endedAt ? 'record' : r.setAsideAt ? 'set aside' : 'continue'}
                  </span>
                </Link>
                {!r.endedAt && (
                  <div className="flex items-center justify-between gap-2">
                    {r.setAsideAt ? <span /> : <ShareButton run={r.id} worded />}
                    <button
                      type="button"
                      className="min-h-11 px-1 text-small underline"
                      onClick={() => void setAside({ run: r.id, aside: !r.setAsideAt })}
                    >
                      {r.setAsideAt ? 'resume' : 'started by mistake: set it aside'}
                    </button>
                  </div>
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
      <PlanOffers facts={facts} />
      <TimePlan facts={facts} onStep={onStep} />
      <section className="mt-4 grid gap-2" aria-label="Method">
        <h3 className="font-bold">How it is done</h3>
        <MethodChoice of="start" />
        <MethodChoice of="drilling" />
        <MethodChoice of="lift" />
        <MethodChoice of="drive" />
        <div>
          <span className="text-small text-ink2">Hands</span>
          <Select
            label="Hands"
            value={String(plan.method.people) as '1' | '2'}
            choices={[
              { value: '1', name: 'alone' },
              { value: '2', name: 'two people' },
            ]}
            onChoose={v => run(setMethod, { part: { people: v === '2' ? 2 : 1 } })}
            className="w-full"
          />
        </div>
      </section>
    </div>
  );
}
