import { type Survey, wholeSurvey } from '@plate-fold/core/rig';
import {
  type AdjustedReading,
  type Adjustment,
  changeReading,
  READING_LISTS,
  type ReadingList,
  readingName,
  removeReading,
} from '@plate-fold/core/survey';
import { tapeLength, type UnitSystem } from '@plate-fold/core/units';
import { Trash2 } from 'lucide-react';
import { useRun } from '../../state/commands/run';
import { MeasureInput } from '../../ui/measure-input';
import { Part } from './part';

/** A reading where it stands in the file, and what the adjustment says of it; that is missing while one of its points has no place. */
export interface ReadingRow {
  readonly list: ReadingList;
  readonly index: number;
  readonly entry: AdjustedReading;
  readonly told: AdjustedReading | undefined;
}
const KINDS = { distances: 'distance', heights: 'height', offsets: 'offset' } as const;

/** All readings that were typed, in the order of the file. */
export function readingRows(survey: Survey | undefined, adjustment: Adjustment): readonly ReadingRow[] {
  const whole = wholeSurvey(survey);
  const told = new Map(adjustment.readings.map(r => [r.id ?? '', r]));
  return READING_LISTS.flatMap(list =>
    whole[list].map((_, index): ReadingRow => {
      const { mm, ...rest } = whole[list][index] as {
        id?: string;
        mm: number;
        from?: string;
        to?: string;
        point?: string;
        axis?: 'x' | 'y';
      };
      const kind = KINDS[list];
      return {
        list,
        index,
        entry: { ...rest, kind, value: mm } as AdjustedReading,
        told:
          told.get(rest.id ?? '') ??
          adjustment.readings.find(
            r =>
              r.kind === kind &&
              r.value === mm &&
              r.from === rest.from &&
              r.to === rest.to &&
              r.point === rest.point &&
              r.axis === rest.axis,
          ),
      };
    }),
  );
}

/** What was read, each to be put right or taken out. */
export function ReadingsPart(props: {
  readonly rows: readonly ReadingRow[];
  readonly worst: ReadingRow | undefined;
  readonly names: ReadonlyMap<string, string>;
  readonly units: UnitSystem;
}) {
  const { rows, worst, names, units } = props;
  const run = useRun();
  if (rows.length === 0) return null;
  return (
    <Part title={`Readings, ${rows.length}`}>
      <ul className="divide-y divide-scribe/60">
        {rows.map(r => (
          <li key={`${r.list} ${r.index}`} className="flex items-center gap-2 py-1">
            <span
              className={`min-w-0 flex-1 truncate text-small ${r === worst ? 'font-bold text-oxide' : ''}`}
            >
              {readingName(r.entry, names)}
            </span>
            <MeasureInput
              label={`Reading ${readingName(r.entry, names)}`}
              hideLabel
              value={r.entry.value}
              units={units}
              onEnter={mm => run(changeReading, { list: r.list, index: r.index, mm })}
              className="w-28"
            />
            <span className="fig w-20 shrink-0 text-right text-note whitespace-nowrap text-ink2">
              {r.told ? `off ${tapeLength(Math.abs(r.told.residual), units)}` : 'unused'}
            </span>
            <button
              type="button"
              className="grid size-11 shrink-0 place-items-center"
              aria-label={`Delete reading ${readingName(r.entry, names)}`}
              onClick={() => run(removeReading, { list: r.list, index: r.index })}
            >
              <Trash2 size={16} aria-hidden="true" />
            </button>
          </li>
        ))}
      </ul>
    </Part>
  );
}
