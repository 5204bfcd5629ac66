import { frontToRear } from '@plate-fold/core/plan';
import { Command } from 'cmdk';
import { useStore } from 'react-redux';
import { useNavigate, useParams } from 'react-router';
import { useGoTo } from '../shared/go-to';
import { BOUND, RELETTER, SWITCH_THEME } from '../state/commands/bound';
import { selectFindings } from '../state/derived';
import { selectDocument } from '../state/select';
import { type RootState, useAppDispatch } from '../state/store';
import { STAGES } from './stages';

const ITEM =
  'flex min-h-11 cursor-pointer items-center gap-3 rounded-tight px-3 data-[disabled=true]:opacity-40 data-[selected=true]:bg-fluid data-[selected=true]:text-onfluid';
const GROUP =
  '[&_[cmdk-group-heading]]:px-3 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-note [&_[cmdk-group-heading]]:text-ink2';

export interface PaletteActions {
  readonly onKeys: () => void;
  readonly onVersions: () => void;
  readonly onHelp: () => void;
  readonly onTour: () => void;
}

/** Everything that can be gone to or done, found by typing a few letters of it: commands, stages, plates, joints and findings. */
export default function Palette({
  open,
  onClose,
  actions,
}: {
  open: boolean;
  onClose: () => void;
  actions: PaletteActions;
}) {
  const store = useStore<RootState>();
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const { planId = '' } = useParams();
  const goTo = useGoTo();
  const state = store.getState();
  const doc = selectDocument(state);
  const findings = selectFindings(state);
  const done = (act: () => void) => () => {
    onClose();
    act();
  };
  const more: readonly (readonly [string, () => void])[] = [
    ['Suggest plates', () => navigate(`/plan/${encodeURIComponent(planId)}/cover?suggest=1`)],
    ['Versions of this plan', actions.onVersions],
    ['Keys', actions.onKeys],
    ['Help and glossary', actions.onHelp],
    ['Take the tour', actions.onTour],
    ['All plans', () => navigate('/')],
  ];
  return (
    <Command.Dialog
      open={open}
      onOpenChange={o => !o && onClose()}
      label="Find a command, plate, bolt or finding"
      overlayClassName="fixed inset-0 z-40 bg-black/55"
      contentClassName="fixed inset-x-3 top-[12dvh] z-50 mx-auto max-w-2xl rounded-edge border border-ink bg-sheet text-ink shadow-xl"
      loop
      filter={(value, search) => {
        const said = value.toLowerCase();
        return search
          .toLowerCase()
          .split(/\s+/)
          .every(w => said.includes(w))
          ? 1
          : 0;
      }}
    >
      <Command.Input
        placeholder="Type a command, plate, bolt or finding"
        className="min-h-13 w-full rounded-t-edge border-b border-scribe bg-paper px-4 text-lead outline-none placeholder:text-ink2"
      />
      <Command.List className="max-h-[60dvh] overflow-y-auto p-1">
        <Command.Empty className="p-4 text-ink2">Nothing matches.</Command.Empty>
        <Command.Group heading="Stages" className={GROUP}>
          {STAGES.map((s, i) => (
            <Command.Item
              key={s.id}
              value={`go to ${s.name}`}
              className={ITEM}
              onSelect={done(() => navigate(`/plan/${encodeURIComponent(planId)}/${s.id}`))}
            >
              <s.icon size={17} aria-hidden="true" />
              <span className="flex-1">Go to {s.name}</span>
              <span className="fig text-note">{i + 1}</span>
            </Command.Item>
          ))}
        </Command.Group>
        <Command.Group heading="Commands" className={GROUP}>
          {[...BOUND, RELETTER, SWITCH_THEME].map(b => (
            <Command.Item
              key={b.id}
              value={`command ${b.id} ${b.label(state)} ${b.says}`}
              disabled={!b.enabled(state)}
              className={ITEM}
              onSelect={done(() => b.run(dispatch, store.getState()))}
            >
              <span className="flex-1 first-letter:uppercase">{b.label(state)}</span>
              {b.shown && <span className="fig text-note">{b.shown}</span>}
            </Command.Item>
          ))}
          {more.map(([name, act]) => (
            <Command.Item key={name} value={`command ${name}`} className={ITEM} onSelect={done(act)}>
              {name}
            </Command.Item>
          ))}
        </Command.Group>
        <Command.Group heading="Plates" className={GROUP}>
          {doc &&
            frontToRear(doc.plan.panels).map(p => (
              <Command.Item
                key={p.id}
                value={`plate ${p.mark} ${p.name} ${p.id}`}
                className={ITEM}
                onSelect={done(() => goTo('cover', [p.id]))}
              >
                <b className="fig">{p.mark}</b> {p.name}
              </Command.Item>
            ))}
        </Command.Group>
        <Command.Group heading="Findings" className={GROUP}>
          {findings.map(f => (
            <Command.Item
              key={`${f.rule} ${f.about.join(' ')} ${f.text}`}
              value={`finding ${f.severity} ${f.text} ${f.about.join(' ')}`}
              className={ITEM}
              onSelect={done(() => goTo(f.where, f.about))}
            >
              <span className="w-10 shrink-0 text-fine font-bold uppercase">{f.severity}</span>
              <span className="min-w-0 flex-1 truncate">{f.text}</span>
            </Command.Item>
          ))}
        </Command.Group>
        <Command.Group heading="Bolts" className={GROUP}>
          {doc?.plan.joints.map(j => (
            <Command.Item
              key={j.id}
              value={`bolt joint ${j.id} ${j.fastener.thread}`}
              className={ITEM}
              onSelect={done(() => goTo('bolt', [j.id]))}
            >
              <b className="fig">{j.id}</b> {j.fastener.thread}, plate{j.panels.length === 1 ? '' : 's'}{' '}
              {j.panels.map(id => doc.plan.panels.find(p => p.id === id)?.mark ?? id).join(', ')}
            </Command.Item>
          ))}
        </Command.Group>
      </Command.List>
    </Command.Dialog>
  );
}
