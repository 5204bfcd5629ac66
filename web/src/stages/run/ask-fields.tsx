import type { Ask } from '@plate-fold/core/sequence';
import {
  KM_PER_MILE,
  parseLength,
  parseNumber,
  type Result,
  tapeLength,
  type UnitSystem,
} from '@plate-fold/core/units';
import { useState } from 'react';
import type { Run } from '../../state/api';

const WHEELS = [
  ['frontLeft', 'Front left fender'],
  ['frontRight', 'Front right fender'],
  ['rearLeft', 'Rear left fender'],
  ['rearRight', 'Rear right fender'],
] as const;

interface Field {
  readonly key: string;
  readonly name: string;
  readonly unit: string;
  readonly read: (typed: string) => Result<number>;
  readonly show: (v: number) => string;
  readonly least: number;
  readonly most: number;
}

const scaled = (r: Result<number>, k: number): Result<number> =>
  r.ok ? { ok: true, value: r.value * k } : r;

function fieldsOf(asks: readonly Ask[], units: UnitSystem): readonly Field[] {
  const inch = units === 'inch';
  return [
    ...(asks.includes('fenders')
      ? WHEELS.map(
          ([key, name]): Field => ({
            key,
            name,
            unit: inch ? 'in' : 'mm',
            read: t => parseLength(t, units),
            show: v => tapeLength(v, units),
            least: 200,
            most: 2000,
          }),
        )
      : []),
    ...(asks.includes('fuel')
      ? [
          {
            key: 'fuel',
            name: 'Fuel in the tank',
            unit: '%',
            read: (t: string) => scaled(parseNumber(t.replace('%', '')), 0.01),
            show: (v: number) => `${Math.round(v * 100)} %`,
            least: 0,
            most: 1,
          },
        ]
      : []),
    ...(asks.includes('odometer')
      ? [
          {
            key: 'km',
            name: 'Odometer',
            unit: inch ? 'mi' : 'km',
            read: (t: string) => scaled(parseNumber(t), inch ? KM_PER_MILE : 1),
            show: (v: number) => `${Math.round(v / (inch ? KM_PER_MILE : 1))}`,
            least: 0,
            most: 5_000_000,
          },
        ]
      : []),
  ];
}

/** What a step asks to be written down: known to the log, and to Weigh, once the run is ended. */
export function AskFields(props: {
  readonly of: readonly Ask[];
  readonly units: UnitSystem;
  readonly values: Readonly<Record<string, number>>;
  readonly onValues: (v: Readonly<Record<string, number>>) => void;
  readonly run: Run;
}) {
  const { of, units, values, onValues } = props;
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({});
  return (
    <section aria-label="Write down" className="mt-3 grid grid-cols-2 gap-x-3 gap-y-2">
      {fieldsOf(of, units).map(f => {
        const text = typed[f.key] ?? '';
        const read = text.trim() === '' ? undefined : f.read(text);
        const fault = !read
          ? undefined
          : !read.ok
            ? read.fault
            : read.value < f.least || read.value > f.most
              ? `between ${f.show(f.least)} and ${f.show(f.most)}`
              : undefined;
        return (
          <div key={f.key}>
            <label htmlFor={`ask-${f.key}`} className="block text-body text-ink2">
              {f.name}, {f.unit}
            </label>
            <input
              id={`ask-${f.key}`}
              inputMode={f.unit === 'in' ? 'text' : 'decimal'}
              autoComplete="off"
              value={text}
              aria-invalid={fault !== undefined}
              placeholder={values[f.key] === undefined ? '' : f.show(values[f.key] as number)}
              onChange={e => {
                const t = e.target.value;
                setTyped({ ...typed, [f.key]: t });
                const r = t.trim() === '' ? undefined : f.read(t);
                const { [f.key]: _, ...rest } = values;
                onValues(
                  r?.ok && r.value >= f.least && r.value <= f.most ? { ...rest, [f.key]: r.value } : rest,
                );
              }}
              className={`fig h-12 w-full rounded-edge border bg-paper px-3 text-title ${fault ? 'border-oxide' : 'border-scribe'}`}
            />
            {fault && (
              <p role="alert" className="text-small text-oxide">
                {fault}
              </p>
            )}
          </div>
        );
      })}
    </section>
  );
}
