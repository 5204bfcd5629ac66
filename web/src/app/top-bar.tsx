import { activateBuild, writeDocument } from '@plate-fold/core/plan';
import { MATERIALS } from '@plate-fold/core/sheet';
import { formatMass, TAPES, type Tape } from '@plate-fold/core/units';
import {
  Archive,
  BookOpen,
  Download,
  Eye,
  History,
  Keyboard,
  LayoutList,
  Menu,
  Moon,
  Redo2,
  Route,
  Ruler,
  Search,
  Sun,
  Undo2,
} from 'lucide-react';
import { DropdownMenu, RadioGroup } from 'radix-ui';
import { Link } from 'react-router';
import { Swatch } from '../picture/hatch';
import { archiveAt } from '../state/api';
import { REDO, SWITCH_THEME, SWITCH_UNITS, TURN_SIDE, UNDO } from '../state/commands/bound';
import { useRun } from '../state/commands/run';
import { useBound } from '../state/commands/use-bound';
import { selectWeights } from '../state/derived';
import { selectDocument, selectShown } from '../state/select';
import { useAppDispatch, useAppSelector } from '../state/store';
import { tapeChosen } from '../state/view-slice';
import { when } from '../ui/dates';
import { SIDE_NAMES } from '../ui/names';
import { saveFile } from '../ui/save-file';
import { ScrollRow } from '../ui/scroll-row';
import { MENU_ITEM } from './menu-item';

function SaveMark() {
  const { save, savedAt, fault, unkept } = useAppSelector(s => s.sync);
  const words = {
    saved: savedAt ? `saved ${when(savedAt)}` : 'saved',
    pending: 'saving \u2026',
    saving: 'saving \u2026',
    offline: unkept ? 'offline: only on this page, keep it open' : 'offline: kept on this device',
    conflict: 'changed elsewhere',
    refused: 'not saved',
  }[save];
  const tone =
    save === 'conflict' || save === 'refused'
      ? 'text-oxide font-bold'
      : save === 'offline'
        ? 'font-bold'
        : 'text-ink2';
  return (
    <output
      aria-live="polite"
      data-save={save}
      title={fault}
      // as wide whatever it says: nothing moves while it saves
      className={`shrink-0 text-note leading-tight max-desk:max-w-28 desk:w-24 ${tone}`}
    >
      {words}
    </output>
  );
}

/** Builds as swatches of their sheet; the active one is worked on, the others are compared. */
function BuildSwitch() {
  const run = useRun();
  const plan = useAppSelector(s => selectShown(s)?.plan);
  const weights = useAppSelector(selectWeights);
  const units = useAppSelector(s => s.view.units);
  if (!plan) return null;
  return (
    <ScrollRow what="builds" shown={plan.activeBuild}>
      <RadioGroup.Root
        aria-label="Builds"
        value={plan.activeBuild}
        onValueChange={build => run(activateBuild, { build })}
        className="flex w-max gap-1.5 p-0.5"
      >
        {plan.builds.map((b, i) => {
          const active = b.id === plan.activeBuild;
          const net = weights[i]?.netKg;
          return (
            <RadioGroup.Item
              key={b.id}
              value={b.id}
              data-shown={active || undefined}
              className={`flex h-10 shrink-0 items-center gap-2 rounded-edge border px-2 text-left ${active ? 'border-fluid bg-paper ring-1 ring-fluid' : 'border-scribe bg-paper hover:border-ink2'}`}
            >
              <Swatch families={Object.values(b.sheets).map(s => MATERIALS[s.material].family)} size={26} />
              <span className="leading-tight whitespace-nowrap">
                <span className="block text-small">{b.name}</span>
                {net !== undefined && (
                  <span className="fig block text-fine text-ink2">{formatMass(net, units)} net</span>
                )}
              </span>
            </RadioGroup.Item>
          );
        })}
      </RadioGroup.Root>
    </ScrollRow>
  );
}

const TAPE_NAMES: Readonly<Record<Tape, string>> = {
  '8': 'eighths of an inch',
  '16': 'sixteenths',
  '32': '32nds',
  decimal: 'decimal inches',
};

const ICON = 'grid size-10 shrink-0 place-items-center rounded-edge hover:bg-paper disabled:opacity-35';

export function TopBar({
  onKeys,
  onVersions,
  onFind,
  onHelp,
  onTour,
}: {
  onKeys: () => void;
  onVersions: () => void;
  onFind: () => void;
  onHelp: () => void;
  onTour: () => void;
}) {
  const undo = useBound(UNDO);
  const redo = useBound(REDO);
  const turn = useBound(TURN_SIDE);
  const other = useBound(SWITCH_UNITS);
  const dress = useBound(SWITCH_THEME);
  const present = useAppSelector(selectDocument);
  const dispatch = useAppDispatch();
  const { side, units, tape, theme } = useAppSelector(s => s.view);
  if (!present) return null;
  const { rig, plan } = present;
  return (
    <header className="flex items-center gap-2 border-b border-scribe bg-sheet px-3 py-1.5 print:hidden max-desk:flex-wrap flat:h-12.5 flat:flex-nowrap! desk:h-13.5 desk:gap-3">
      <Link
        to="/"
        className="shrink-0 py-2 text-lead font-extrabold tracking-tight max-desk:hidden"
        aria-label="Plate Fold, all plans"
      >
        Plate Fold
      </Link>
      <h1 className="min-w-0 shrink truncate text-lead max-desk:flex-1 desk:max-w-44">
        <Link to="/" className="py-2 desk:hidden" aria-label="All plans">
          {'\u2190 '}
        </Link>
        <b>{rig.name}</b> <span className="text-ink2">{plan.name}</span>
      </h1>
      <div className="min-w-0 group-data-folded/frame:max-desk:hidden max-desk:order-last max-desk:w-full flat:order-none! flat:flex-1 desk:mx-auto">
        <BuildSwitch />
      </div>
      <div className="flex shrink-0">
        <button
          type="button"
          className={ICON}
          aria-label={undo.label}
          data-tip={`${undo.label} (Ctrl+Z)`}
          disabled={!undo.enabled}
          onClick={undo.run}
        >
          <Undo2 size={19} aria-hidden="true" />
        </button>
        <button
          type="button"
          className={ICON}
          aria-label={redo.label}
          data-tip={`${redo.label} (Ctrl+Shift+Z)`}
          disabled={!redo.enabled}
          onClick={redo.run}
        >
          <Redo2 size={19} aria-hidden="true" />
        </button>
      </div>
      <button
        type="button"
        className="flex h-10 shrink-0 items-center gap-2 rounded-edge border border-scribe bg-paper px-3 text-small hover:border-ink2 max-desk:hidden"
        onClick={turn.run}
        aria-label={`Seen: ${SIDE_NAMES[side]}. Change`}
        data-tip="Look from another side (V)"
      >
        <Eye size={17} aria-hidden="true" />
        {SIDE_NAMES[side]}
      </button>
      <button
        type="button"
        className="fig h-10 shrink-0 rounded-edge border border-scribe bg-paper px-2.5 text-note hover:border-ink2 max-desk:hidden"
        onClick={other.run}
        aria-label={`${units === 'inch' ? 'in \u00b7 lb' : 'mm \u00b7 kg'}: change units`}
        data-tip="Change units (U)"
      >
        {units === 'inch' ? 'in \u00b7 lb' : 'mm \u00b7 kg'}
      </button>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className={ICON} aria-label="Menu" data-tip="Menu; find anything with Ctrl+K">
          <Menu size={20} aria-hidden="true" />
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            sideOffset={6}
            align="end"
            className="z-50 min-w-60 rounded-edge border border-ink bg-paper py-1 text-ink shadow-lg"
          >
            <DropdownMenu.Item className={MENU_ITEM} onSelect={turn.run}>
              <Eye size={17} aria-hidden="true" /> {SIDE_NAMES[side]}
            </DropdownMenu.Item>
            <DropdownMenu.Item className={MENU_ITEM} onSelect={other.run}>
              <span className="fig text-note">{units === 'inch' ? 'mm' : 'in'}</span> Show{' '}
              {units === 'inch' ? 'metric' : 'inch and pound'}
            </DropdownMenu.Item>
            {units === 'inch' && (
              <DropdownMenu.Item
                className={MENU_ITEM}
                onSelect={e => {
                  // it says at once what it was turned to
                  e.preventDefault();
                  dispatch(tapeChosen(TAPES[(TAPES.indexOf(tape) + 1) % TAPES.length] as Tape));
                }}
              >
                <Ruler size={17} aria-hidden="true" /> Tape: {TAPE_NAMES[tape]}
              </DropdownMenu.Item>
            )}
            <DropdownMenu.Item className={MENU_ITEM} onSelect={dress.run}>
              {theme === 'dark' ? (
                <Sun size={17} aria-hidden="true" />
              ) : (
                <Moon size={17} aria-hidden="true" />
              )}
              {theme === 'dark' ? 'Light theme' : 'Dark theme'}
            </DropdownMenu.Item>
            <DropdownMenu.Item
              className={MENU_ITEM}
              onSelect={() =>
                saveFile(`${plan.id}.platefold.json`, writeDocument(present), 'application/json')
              }
            >
              <Download size={17} aria-hidden="true" /> Save the plan as a file
            </DropdownMenu.Item>
            <DropdownMenu.Item className={MENU_ITEM} asChild>
              <a href={archiveAt(plan.id)} download>
                <Archive size={17} aria-hidden="true" /> Save with runs, log and photos (zip)
              </a>
            </DropdownMenu.Item>
            <DropdownMenu.Item className={MENU_ITEM} onSelect={onVersions}>
              <History size={17} aria-hidden="true" /> Versions
            </DropdownMenu.Item>
            <DropdownMenu.Item className={MENU_ITEM} onSelect={onFind}>
              <Search size={17} aria-hidden="true" /> Find{' '}
              <span className="fig ml-auto text-note">Ctrl+K</span>
            </DropdownMenu.Item>
            <DropdownMenu.Item className={MENU_ITEM} onSelect={onHelp}>
              <BookOpen size={17} aria-hidden="true" /> Help and glossary
            </DropdownMenu.Item>
            <DropdownMenu.Item className={MENU_ITEM} onSelect={onTour}>
              <Route size={17} aria-hidden="true" /> Tour
            </DropdownMenu.Item>
            <DropdownMenu.Item className={`${MENU_ITEM} max-desk:hidden`} onSelect={onKeys}>
              <Keyboard size={17} aria-hidden="true" /> Keys
            </DropdownMenu.Item>
            <DropdownMenu.Item className={MENU_ITEM} asChild>
              <Link to="/">
                <LayoutList size={17} aria-hidden="true" /> All plans
              </Link>
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      <SaveMark />
    </header>
  );
}
