import { formatMass } from '@plate-fold/core/units';
import {
  Archive,
  ArchiveRestore,
  Copy,
  Download,
  EllipsisVertical,
  FolderArchive,
  Pencil,
  Trash2,
} from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { Link } from 'react-router';
import { archiveAt, type DocumentRow, useGlanceQuery } from '../state/api';
import { useAppSelector } from '../state/store';
import { when } from '../ui/dates';
import { BODY_NAMES } from '../ui/names';
import { GlancePicture } from './glance-picture';
import { MENU_ITEM } from './menu-item';

/** What can be done with a plan in the list. */
export interface PlanActions {
  readonly rename: (row: DocumentRow) => void;
  readonly duplicate: (row: DocumentRow) => void;
  readonly exportFile: (row: DocumentRow) => void;
  readonly archive: (row: DocumentRow, archived: boolean) => void;
  readonly remove: (row: DocumentRow) => void;
}

function Found({ stop, fix, note }: { stop: number; fix: number; note: number }) {
  const said = [
    ...(stop > 0 ? [`${stop} stop`] : []),
    ...(fix > 0 ? [`${fix} fix`] : []),
    ...(note > 0 ? [`${note} note${note === 1 ? '' : 's'}`] : []),
  ];
  return (
    <span className={stop > 0 ? 'font-semibold text-oxide' : ''}>
      {said.length === 0 ? 'no findings' : said.join(', ')}
    </span>
  );
}

/** A plan in the list: its underside, what it weighs, what is found, when it was saved and last run; and a menu of what can be done with it. */
export function PlanTile({ row, actions }: { row: DocumentRow; actions: PlanActions }) {
  const units = useAppSelector(s => s.view.units);
  const { data: glance } = useGlanceQuery({ id: row.id, revision: row.revision });
  const whole = `${row.rigName} ${row.name}`;
  const items = [
    ['Rename', Pencil, () => actions.rename(row)],
    ['Duplicate', Copy, () => actions.duplicate(row)],
    ['Export plan file', Download, () => actions.exportFile(row)],
  ] as const;
  return (
    <li className="relative flex flex-col rounded-edge border border-scribe bg-paper hover:border-ink2">
      <div className="flex flex-1 flex-col">
        <div className="aspect-[2.1] w-full border-b border-scribe bg-sheet p-2">
          {glance && <GlancePicture glance={glance} name={whole} />}
        </div>
        <div className="flex-1 px-3 pt-2 pr-12">
          {/* the whole tile is pressed */}
          <Link
            data-plan={row.id}
            to={`/plan/${encodeURIComponent(row.id)}/cover`}
            className="block truncate text-title after:absolute after:inset-0 after:rounded-edge"
          >
            <b>{row.rigName}</b> {row.name}
          </Link>
          <span className="block text-small text-ink2">
            {BODY_NAMES[row.bodyKind as keyof typeof BODY_NAMES]}
          </span>
        </div>
        <p className="px-3 pt-1 pb-2.5 text-small text-ink2">
          {glance ? (
            <>
              <span className="fig">{formatMass(glance.netKg, units)}</span> net {'\u00b7 '}
              {glance.plates.length} plate{glance.plates.length === 1 ? '' : 's'} {'\u00b7 '}
              <Found {...glance.findings} />
            </>
          ) : (
            'Loading \u2026'
          )}
          <span className="block">
            Saved {when(row.updatedAt)}
            {row.lastRunAt === null ? '' : ` \u00b7 last run ${when(row.lastRunAt)}`}
          </span>
        </p>
      </div>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger
          aria-label={`Menu of ${whole}`}
          className="absolute right-1 bottom-1 z-10 grid size-11 place-items-center rounded-edge hover:bg-sheet"
        >
          <EllipsisVertical size={20} aria-hidden="true" />
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="end"
            sideOffset={4}
            className="z-50 min-w-60 rounded-edge border border-ink bg-paper py-1 text-ink shadow-lg"
          >
            {items.map(([name, Icon, act]) => (
              <DropdownMenu.Item key={name} className={MENU_ITEM} onSelect={act}>
                <Icon size={17} aria-hidden="true" /> {name}
              </DropdownMenu.Item>
            ))}
            <DropdownMenu.Item className={MENU_ITEM} asChild>
              <a href={archiveAt(row.id)} download>
                <FolderArchive size={17} aria-hidden="true" /> Export with runs, log and photos
              </a>
            </DropdownMenu.Item>
            <DropdownMenu.Item
              className={MENU_ITEM}
              onSelect={() => actions.archive(row, row.archivedAt === null)}
            >
              {row.archivedAt === null ? (
                <Archive size={17} aria-hidden="true" />
              ) : (
                <ArchiveRestore size={17} aria-hidden="true" />
              )}
              {row.archivedAt === null ? 'Archive' : 'Back to the list'}
            </DropdownMenu.Item>
            <DropdownMenu.Item className={`${MENU_ITEM} text-oxide`} onSelect={() => actions.remove(row)}>
              <Trash2 size={17} aria-hidden="true" /> Delete
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </li>
  );
}
