import { formatMass, type UnitSystem } from '@plate-fold/core/units';
import { useEffect, useRef, useState } from 'react';
import { Button } from '../ui/button';
import { Select } from '../ui/select';

const PADS = ['front-left', 'front-right', 'rear-left', 'rear-right'] as const;
type Pad = (typeof PADS)[number];
type Mood = 'good' | 'noisy' | 'dead-pad';
interface Reading {
  readonly pad: Pad;
  readonly kg: number;
  readonly stable: boolean;
}

/** Reads four wheel scales until all stand still, then offers what they read. The set that ships with the program is simulated. */
export function WheelScales(props: {
  /** what the simulated set is told to weigh, kg */
  readonly frontKg: number;
  readonly rearKg: number;
  readonly units: UnitSystem;
  readonly take: string;
  readonly untaken: string;
  readonly onTake: (kg: Readonly<Record<Pad, number>>) => void;
}) {
  const { frontKg, rearKg, units, take, untaken, onTake } = props;
  const [mood, setMood] = useState<Mood>('good');
  const [shown, setShown] = useState<Partial<Record<Pad, Reading>>>({});
  const [state, setState] = useState<'idle' | 'reading' | 'settled' | 'failed'>('idle');
  const [fault, setFault] = useState('');
  const stream = useRef<EventSource | undefined>(undefined);
  useEffect(() => () => stream.current?.close(), []);
  const read = (): void => {
    stream.current?.close();
    setShown({});
    setState('reading');
    const es = new EventSource(
      `/api/devices/scales/readings?frontKg=${frontKg}&rearKg=${rearKg}&mood=${mood}`,
    );
    stream.current = es;
    es.addEventListener('reading', e => {
      const r = JSON.parse((e as MessageEvent<string>).data) as Reading;
      setShown(s => ({ ...s, [r.pad]: r }));
    });
    const end = (next: 'settled' | 'failed', why = ''): void => {
      es.close();
      setState(next);
      setFault(why);
    };
    es.addEventListener('settled', () => end('settled'));
    es.addEventListener('failed', e =>
      end('failed', (JSON.parse((e as MessageEvent<string>).data) as { fault: string }).fault),
    );
    es.onerror = () => end('failed', 'The scales do not answer: is the server there?');
  };
  const kg = (pad: Pad): number => shown[pad]?.kg ?? 0;
  return (
    <>
      <p className="text-small text-ink2">Simulated scales: they read back the loads entered so far.</p>
      <div className="mt-1 grid grid-cols-2 gap-2">
        <Select<Mood>
          label="Simulated scales"
          value={mood}
          choices={[
            { value: 'good', name: 'works normally' },
            { value: 'noisy', name: 'on soft ground' },
            { value: 'dead-pad', name: 'loses one pad' },
          ]}
          onChoose={setMood}
        />
        <Button disabled={state === 'reading'} onClick={read}>
          {state === 'reading' ? 'Reading …' : 'Read'}
        </Button>
      </div>
      {state !== 'idle' && (
        <dl className="mt-2 grid grid-cols-2 gap-1">
          {PADS.map(p => (
            <div
              key={p}
              className="flex items-baseline justify-between border border-scribe bg-paper px-2 py-1.5"
            >
              <dt className="text-note text-ink2">{p.replace('-', ' ')}</dt>
              <dd className={`fig ${shown[p]?.stable ? 'font-semibold' : ''}`}>
                {shown[p] ? formatMass(shown[p].kg, units) : '–'}
              </dd>
            </div>
          ))}
        </dl>
      )}
      {state === 'settled' && (
        <Button
          look="strong"
          className="mt-2 w-full"
          onClick={() => {
            onTake(Object.fromEntries(PADS.map(p => [p, kg(p)])) as Record<Pad, number>);
            setState('idle');
          }}
        >
          {take}
        </Button>
      )}
      {state === 'failed' && (
        <p role="alert" className="mt-2 text-oxide">
          {fault} {untaken}
        </p>
      )}
    </>
  );
}
