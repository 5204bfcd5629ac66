import { fixed, torqueFigure, type UnitSystem } from '@plate-fold/core/units';
import { Radio } from 'lucide-react';
import { Button } from '../../ui/button';
import { Select } from '../../ui/select';
import type { useWrench, WrenchMood } from './use-wrench';

const MOODS: readonly { readonly value: WrenchMood; readonly name: string }[] = [
  { value: 'good', name: 'a good joint' },
  { value: 'cross-threaded', name: 'a crossed thread' },
  { value: 'stripping', name: 'a rivet nut that strips' },
  { value: 'yielded', name: 'a bolt that stretches' },
  { value: 'broken', name: 'a connection that breaks' },
];

/** Reads the digital wrench: torque and angle while it turns, then the verdict. The wrench that ships with the program is simulated. */
export function WrenchPull(props: {
  readonly of: ReturnType<typeof useWrench>;
  readonly targetNm: number;
  readonly units: UnitSystem;
  /** every bolt that comes up is read by itself */
  readonly listening: boolean;
  readonly onListen: (on: boolean) => void;
}) {
  const { targetNm, units, listening } = props;
  const { wrench, mood, setMood } = props.of;
  const { state, now, turn, fault, clicked } = wrench;
  const bad = turn && turn.verdict !== 'good';
  const shown = now && torqueFigure(state === 'pulling' ? now.nm : wrench.peakNm, units);
  return (
    <section aria-label="Digital wrench" className="mt-1.5">
      <div className="grid grid-cols-[1.3fr_1fr] gap-2">
        <Button
          look="plain"
          className="min-h-12 leading-tight"
          aria-pressed={listening}
          onClick={() => props.onListen(!listening)}
        >
          <Radio size={18} aria-hidden="true" />
          {listening ? 'Stop reading' : state === 'idle' ? 'Read the wrench' : 'Pull again'}
        </Button>
        <Select
          label="Simulated wrench on"
          value={mood}
          choices={MOODS}
          onChoose={setMood}
          className="min-h-12 text-small"
        />
      </div>
      <p className="mt-0.5 text-note text-ink2">
        Simulated wrench. While it is read, each good pull goes on to the next bolt.
      </p>
      {state !== 'idle' && shown && (
        <div className="mt-1" aria-live={state === 'pulling' ? 'off' : 'polite'}>
          <div className="relative h-3 bg-scribe/60" aria-hidden="true">
            <div
              className={`h-full ${bad ? 'bg-oxide' : 'bg-fluid'}`}
              style={{ width: `${Math.min(100, ((now?.nm ?? 0) / targetNm) * 87)}%` }}
            />
            <div className="absolute inset-y-[-3px] left-[87%] w-0.75 bg-ink" />
          </div>
          <p className="mt-1 text-lead">
            {state === 'pulling' ? '' : 'Peak '}
            <span className={`fig text-large font-semibold ${bad ? 'text-oxide' : ''}`}>{shown.value}</span>{' '}
            {shown.unit}, <span className="fig">{fixed(turn?.fromSnugDeg ?? now?.deg ?? 0, 0)}°</span>
            {turn?.fromSnugDeg === undefined ? '' : ' past snug'}
            {clicked ? ', clicked' : ''}
          </p>
        </div>
      )}
      {turn && (
        <p
          role={bad ? 'alert' : 'status'}
          className={`mt-1 text-lead leading-snug ${bad ? 'border-l-[6px] border-oxide bg-oxidesoft px-3 py-2 font-semibold' : ''}`}
        >
          {turn.said}
        </p>
      )}
      {state === 'broken' && (
        <p
          role="alert"
          className="mt-1 border-l-[6px] border-marker bg-markersoft px-3 py-2 text-lead leading-snug"
        >
          {fault} Nothing is lost: pull again, or type what the wrench shows.
        </p>
      )}
    </section>
  );
}
