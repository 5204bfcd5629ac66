import { addReading } from '@plate-fold/core/survey';
import { parseLength, type UnitSystem } from '@plate-fold/core/units';
import { Plus } from 'lucide-react';
import { useId, useRef, useState } from 'react';
import { useRun } from '../../state/commands/run';
import { Button } from '../../ui/button';
import { Chips } from '../../ui/chips';

type Kind = 'tape' | 'height' | 'offset';

/** What is being read: kept while one reading follows another. */
export interface Reading {
  readonly kind: Kind;
  readonly from: string;
  readonly to: string;
  readonly axis: 'x' | 'y';
}

/** A point is chosen from those of the survey and all holes that are not in it yet. */
export function PointSelect(props: {
  readonly label: string;
  readonly value: string;
  readonly points: readonly (readonly [string, string])[];
  readonly onChoose: (id: string) => void;
}) {
  const id = useId();
  return (
    <div className="min-w-0 flex-1">
      <label htmlFor={id} className="block text-note text-ink2">
        {props.label}
      </label>
      <select
        id={id}
        value={props.value}
        onChange={e => props.onChoose(e.target.value)}
        className="min-h-12 w-full rounded-edge border border-scribe bg-paper px-2 text-lead"
      >
        <option value="">choose</option>
        {props.points.map(([value, name]) => (
          <option key={value} value={value}>
            {name}
          </option>
        ))}
      </select>
    </div>
  );
}

/** The next reading, typed with one hand: what it is of, what it reads. */
export function ReadingForm(props: {
  readonly reading: Reading;
  readonly onReading: (r: Reading) => void;
  readonly points: readonly (readonly [string, string])[];
  readonly units: UnitSystem;
}) {
  const { reading, onReading, points, units } = props;
  const run = useRun();
  const field = useRef<HTMLInputElement>(null);
  const [text, setText] = useState('');
  const [fault, setFault] = useState<string>();
  const id = useId();
  const add = (): void => {
    const { kind, from, to, axis } = reading;
    if (from === '' || (kind === 'tape' && to === '')) {
      setFault(kind === 'tape' ? 'choose both points' : 'choose a point');
      return;
    }
    const read = parseLength(text, units);
    if (!read.ok) {
      setFault(read.fault);
      return;
    }
    const mm = read.value;
    const made =
      kind === 'tape'
        ? run(addReading, { list: 'distances', reading: { from, to, mm } })
        : kind === 'height'
          ? run(addReading, { list: 'heights', reading: { point: from, mm } })
          : run(addReading, { list: 'offsets', reading: { point: from, axis, mm } });
    if (made === false) {
      setFault('not taken: the reason stands above');
      return;
    }
    setFault(undefined);
    setText('');
    // the hook stays where it is: the next tape goes to another point
    onReading(kind === 'tape' ? { ...reading, to: '' } : { ...reading, from: '' });
    field.current?.focus();
  };
  return (
    <form
      aria-label="Add a reading"
      className="border-b border-scribe p-3"
      onSubmit={e => {
        e.preventDefault();
        add();
      }}
    >
      <Chips
        label="What is read"
        value={reading.kind}
        choices={[
          ['tape', 'Tape'],
          ['height', 'Height'],
          ['offset', 'From a line'],
        ]}
        onChoose={kind => onReading({ ...reading, kind })}
      />
      <div className="mt-2 flex gap-2">
        <PointSelect
          label={reading.kind === 'tape' ? 'From' : 'Point'}
          value={reading.from}
          points={points.filter(([p]) => reading.kind !== 'tape' || p !== reading.to)}
          onChoose={from => onReading({ ...reading, from })}
        />
        {reading.kind === 'tape' && (
          <PointSelect
            label="To"
            value={reading.to}
            points={points.filter(([p]) => p !== reading.from)}
            onChoose={to => onReading({ ...reading, to })}
          />
        )}
      </div>
      {reading.kind === 'offset' && (
        <div className="mt-2">
          <Chips
            label="From which line"
            value={reading.axis}
            choices={[
              ['x', 'behind the front axle'],
              ['y', 'right of the center line'],
            ]}
            onChoose={axis => onReading({ ...reading, axis })}
          />
        </div>
      )}
      <div className="mt-2 flex items-end gap-2">
        <div className="min-w-0 flex-1">
          <label htmlFor={id} className="block text-note text-ink2">
            Reads, {units === 'inch' ? 'inches and sixteenths' : 'millimeters'}
          </label>
          <input
            id={id}
            ref={field}
            value={text}
            inputMode={units === 'inch' ? 'text' : 'decimal'}
            autoComplete="off"
            onChange={e => setText(e.target.value)}
            aria-describedby={fault ? `${id}-fault` : undefined}
            aria-invalid={fault !== undefined}
            className={`fig min-h-12 w-full rounded-edge border bg-paper px-2 text-lead ${fault ? 'border-oxide' : 'border-scribe'}`}
          />
        </div>
        <Button type="submit" look="strong" className="min-h-12">
          <Plus size={18} aria-hidden="true" /> Add
        </Button>
      </div>
      {fault && (
        <p id={`${id}-fault`} role="alert" className="mt-1 text-small text-oxide">
          {fault}
        </p>
      )}
    </form>
  );
}
