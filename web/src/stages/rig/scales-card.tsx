import { formatMass, type MeasureId, type Measures, remeasured, typicalMeasures } from '@plate-fold/core';
import { useEffect, useRef, useState } from 'react';
import { useFacts } from '../../app/derived';
import { useApp } from '../../app/store';
import { useEdit } from '../../app/use-edit';
import { Button } from '../../ui/button';
import { Select } from '../../ui/select';

const PADS = ['front-left', 'front-right', 'rear-left', 'rear-right'] as const;
type Pad = (typeof PADS)[number];
type Mood = 'good' | 'noisy' | 'dead-pad';
interface Reading {
  readonly pad: Pad;
  readonly kg: number;
  readonly stable: boolean;
}

/** Reads four wheel scales and takes the axle loads from them. The set that ships with the program is simulated. */
export function ScalesCard() {
  const facts = useFacts();
  const units = useApp(s => s.view.units);
  const edit = useEdit();
  const { rig } = facts.document;
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
    const { front, rear } = rig.axles;
    const es = new EventSource(
      `/api/devices/scales/readings?frontKg=${front.massKg}&rearKg=${rear.massKg}&mood=${mood}`,
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
  const take = (): void => {
    const kg = (pad: Pad): number => shown[pad]?.kg ?? 0;
    const [front, rear] = [kg('front-left') + kg('front-right'), kg('rear-left') + kg('rear-right')];
    edit('axle loads weighed', doc => {
      const before = (doc.rig.measures ?? typicalMeasures(doc.rig.body)) as Measures;
      const loads: Partial<Record<MeasureId, number>> = { frontAxleKg: front, rearAxleKg: rear };
      return { ...doc, rig: remeasured(doc.rig, { ...before, ...loads }) };
    });
    setState('idle');
  };
  return (
    <section aria-label="Wheel scales" className="mt-4">
      <h3 className="font-bold">Wheel scales</h3>
      <p className="text-[13px] text-ink2">
        Simulated: a stand-in that ships with the program and weighs the loads entered so far.
      </p>
      <div className="mt-1 grid grid-cols-2 gap-2">
        <Select<Mood>
          label="The simulated set"
          value={mood}
          choices={[
            { value: 'good', name: 'behaves well' },
            { value: 'noisy', name: 'on soft ground' },
            { value: 'dead-pad', name: 'loses a pad' },
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
              <dt className="text-[12.5px] text-ink2">{p.replace('-', ' ')}</dt>
              <dd className={`fig ${shown[p]?.stable ? 'font-semibold' : ''}`}>
                {shown[p] ? formatMass(shown[p].kg, units) : '–'}
              </dd>
            </div>
          ))}
        </dl>
      )}
      {state === 'settled' && (
        <Button look="strong" className="mt-2 w-full" onClick={take}>
          Take these axle loads
        </Button>
      )}
      {state === 'failed' && (
        <p role="alert" className="mt-2 text-oxide">
          {fault} The axle loads stay as they were.
        </p>
      )}
    </section>
  );
}
