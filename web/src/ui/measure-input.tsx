import {
  KG_PER_LB,
  MM_PER_INCH,
  parseLength,
  parseMass,
  parseNumber,
  type Result,
  roundTo,
  TAPE_FROM,
  tapeLength,
  tapeTaken,
  type UnitSystem,
} from '@plate-fold/core/units';
import { useId } from 'react';
import { useDraftField } from './use-draft-field';

/** A figure that is typed: shown in the reader's unit, read in any, kept in mm (in kg for `mass`, as it is for `plain`). */
export function MeasureInput(props: {
  readonly label: string;
  readonly value: number;
  readonly units: UnitSystem;
  /** false when the value was refused */
  readonly onEnter: (value: number) => unknown;
  /** a plain number with its own unit instead of a length */
  readonly plain?: string;
  /** a mass instead of a length: kept in kg */
  readonly mass?: boolean;
  readonly hideLabel?: boolean;
  /** no room for the unit: it stands elsewhere */
  readonly bare?: boolean;
  readonly least?: number;
  readonly most?: number;
  readonly onFocus?: () => void;
  readonly className?: string;
}) {
  const { label, value, units, plain, mass = false, onEnter } = props;
  const id = useId();
  const inch = units === 'inch';
  const length = {
    unit: inch ? 'in' : 'mm',
    size: inch ? MM_PER_INCH : 1,
    digits: inch ? 3 : 1,
    read: parseLength,
  };
  const weight = { unit: inch ? 'lb' : 'kg', size: inch ? KG_PER_LB : 1, digits: 1, read: parseMass };
  const number = { unit: plain ?? '', size: 1, digits: 2, read: parseNumber };
  const kind = plain !== undefined ? number : mass ? weight : length;
  const { unit } = kind;
  // what a tape measures is shown as a tape has it; what is typed finer stays as fine as it was typed
  const show = (v: number): string =>
    inch && kind === length && Math.abs(v) >= TAPE_FROM && tapeTaken() !== 'decimal'
      ? tapeLength(v, units).replace(/ in$/, '')
      : String(roundTo(v / kind.size, kind.digits));
  const { fault, field } = useDraftField({
    value: show(value),
    onEnter: text => {
      const read: Result<number> = kind.read(text, units);
      if (!read.ok) return read.fault;
      if (props.least !== undefined && read.value < props.least)
        return `not below ${show(props.least)} ${unit}`;
      if (props.most !== undefined && read.value > props.most) return `not above ${show(props.most)} ${unit}`;
      // typed as it is shown, nothing is meant
      return text.trim() !== show(value) && read.value !== value && onEnter(read.value) === false
        ? 'not taken: the reason stands above'
        : undefined;
    },
  });
  return (
    <div className={props.className}>
      <label htmlFor={id} className={props.hideLabel ? 'sr-only' : 'block text-note text-ink2'}>
        {label}
      </label>
      <span className="relative block">
        <input
          id={id}
          // a keyboard for fractions has a slash
          inputMode={inch && kind === length ? 'text' : 'decimal'}
          autoComplete="off"
          {...field}
          aria-describedby={fault ? `${id}-fault` : undefined}
          onFocus={e => {
            e.target.select();
            props.onFocus?.();
          }}
          className={`fig min-h-11 w-full min-w-0 rounded-edge border bg-paper pl-2 ${props.bare ? 'pr-1' : 'pr-8'} ${fault ? 'border-oxide' : 'border-scribe'}`}
        />
        <span
          hidden={props.bare}
          className="pointer-events-none absolute top-1/2 right-2 -translate-y-1/2 text-note text-ink2"
        >
          {unit}
        </span>
      </span>
      {fault && (
        <p id={`${id}-fault`} role="alert" className="text-note leading-tight text-oxide">
          {fault}
        </p>
      )}
    </div>
  );
}
