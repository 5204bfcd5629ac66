import { plateUnder } from '@plate-fold/core/cover';
import type { Vec2 } from '@plate-fold/core/geometry';
import type { Due, LogEntry } from '@plate-fold/core/log';
import { Tabs } from 'radix-ui';
import { useState } from 'react';
import { UndersideMap } from '../../picture/map';
import { Bench, Pannable, type useSheet, ZoomButtons } from '../../shared/bench';
import {
  useAddToLogMutation,
  useLogQuery,
  useRightLogMutation,
  useSendLogPhotoMutation,
  useStrikeFromLogMutation,
} from '../../state/api';
import { useFacts } from '../../state/derived';
import { useAppSelector } from '../../state/store';
import { Button } from '../../ui/button';
import { TAB } from '../../ui/tab-style';
import { useNarrow } from '../../ui/use-narrow';
import { DueCard } from './due-card';
import { EntryForm } from './entry-form';
import { EntryList } from './entry-list';
import { type Draft, freshEntryId } from './kinds';
import { ServiceTab } from './service-tab';
import { TimeTab } from './time-tab';
import { useForeseen } from './use-foreseen';

/** A hit on the map: a burst as large as the dent is deep. */
function HitMark({ at, dent, label, chosen }: { at: Vec2; dent: number; label: string; chosen: boolean }) {
  const r = Math.max(9, Math.min(26, 8 + dent * 1.2));
  const points = Array.from({ length: 16 }, (_, i) => {
    const a = (i * Math.PI) / 8;
    const k = i % 2 === 0 ? r : r * 0.45;
    return `${(at[0] + k * Math.cos(a)).toFixed(1)},${(at[1] + k * Math.sin(a)).toFixed(1)}`;
  }).join(' ');
  return (
    <g className="pointer-events-none">
      <title>{label}</title>
      <polygon
        points={points}
        fill={chosen ? 'var(--fluid)' : 'var(--oxide)'}
        stroke="var(--paper)"
        strokeWidth="1.5"
      />
    </g>
  );
}

function HitMap(props: {
  readonly sheet: ReturnType<typeof useSheet>;
  readonly height: number;
  readonly hits: readonly LogEntry[];
  readonly draft?: Draft;
  readonly chosen?: string;
  readonly onPlace: (at: Vec2) => void;
}) {
  const { sheet, height, hits, draft, chosen, onPlace } = props;
  const facts = useFacts();
  const units = useAppSelector(s => s.view.units);
  const { scale } = sheet;
  const placing = draft?.kind === 'hit';
  const put = ([x, y]: readonly [number, number]): Vec2 => [scale.X(x), scale.Y(y, height)];
  return (
    <Pannable sheet={sheet}>
      <div
        className={placing ? 'cursor-crosshair' : ''}
        onMouseDownCapture={e => {
          // a touch that places is not one that chooses
          if (placing) e.preventDefault();
        }}
        onClickCapture={e => {
          if (!placing) return;
          e.preventDefault();
          e.stopPropagation();
          const box = e.currentTarget.getBoundingClientRect();
          onPlace([
            Math.round(scale.xAt(e.clientX - box.left)),
            Math.round(scale.yAt(e.clientY - box.top, height)),
          ]);
        }}
      >
        <UndersideMap facts={facts} scale={scale} height={height} units={units}>
          {hits.map(h =>
            h.place ? (
              <HitMark
                key={h.id}
                at={put(h.place)}
                dent={h.dentMm ?? 0}
                label="hit"
                chosen={h.id === chosen}
              />
            ) : null,
          )}
          {placing && draft.place && (
            <HitMark at={put(draft.place)} dent={draft.dentMm ?? 0} label="new hit" chosen />
          )}
        </UndersideMap>
      </div>
      <ZoomButtons sheet={sheet} />
    </Pannable>
  );
}

/** Log: what happened and what is due. */
export function LogStage() {
  const facts = useFacts();
  const units = useAppSelector(s => s.view.units);
  const { id } = facts.document.plan;
  const { data: log = [], isError } = useLogQuery(id, { refetchOnMountOrArgChange: true });
  const [add, adding] = useAddToLogMutation();
  const [right, righting] = useRightLogMutation();
  const [strike] = useStrikeFromLogMutation();
  const [draft, setDraft] = useState<Draft>();
  const [photo, setPhoto] = useState<Blob>();
  const [sendPhoto, sending] = useSendLogPhotoMutation();
  const [chosen, setChosen] = useState<string>();
  const [tab, setTab] = useState('log');
  // on a phone the form stands under the map it asks to be touched
  const narrow = useNarrow();
  const foreseen = useForeseen(facts, draft?.kind === 'hit' ? draft.place : undefined, draft?.panel);
  const fresh = (of?: Due): void => {
    setChosen(undefined);
    adding.reset();
    righting.reset();
    setPhoto(undefined);
    if (!of || narrow) setTab('log');
    setDraft({
      id: freshEntryId(),
      // a repaired bolt is logged with the torque it was brought to
      kind: of?.kind === 'repair' ? 're-torque' : (of?.kind ?? 'hit'),
      at: Date.now(),
      ...(of?.point ? { point: of.point } : {}),
    });
  };
  const keep = async (): Promise<void> => {
    if (!draft) return;
    // the photo first: an entry never names one that is not there
    const picture = photo && freshEntryId();
    if (photo && picture) {
      const sent = await sendPhoto({ document: id, id: picture, photo });
      if (sent.error) return;
    }
    const entry = {
      ...draft,
      ...(draft.kind === 'hit' && typeof foreseen === 'number'
        ? { foreseenMm: Math.round(foreseen * 100) / 100 }
        : {}),
      ...(picture ? { photo: picture } : {}),
    } as LogEntry;
    const whole = Object.fromEntries(
      Object.entries(entry).filter(([, v]) => v !== undefined),
    ) as unknown as LogEntry;
    const known = log.some(e => e.id === whole.id);
    const answer = known ? await right({ id, entry: whole }) : await add({ id, entries: [whole] });
    if (answer.data) {
      setDraft(undefined);
      setPhoto(undefined);
      setChosen(entry.id);
    }
  };
  const failed = [sending, adding, righting].find(m => m.isError)?.error;
  const fault = failed
    ? ((failed as { data?: { fault?: string } }).data?.fault ??
      'The server does not answer: the entry is still here. Try again.')
    : undefined;
  const form = draft && (
    <EntryForm
      key={draft.id}
      facts={facts}
      units={units}
      log={log}
      draft={draft}
      onChange={d => {
        setDraft(d);
        if (d.kind === 'hit') setTab('log');
      }}
      foreseen={foreseen}
      photo={photo}
      onPhoto={setPhoto}
      fault={fault}
      busy={adding.isLoading || righting.isLoading}
      onKeep={() => void keep()}
      onLeave={() => setDraft(undefined)}
    />
  );
  return (
    <Bench
      asideName="Due and new entries"
      work={(sheet, height) => {
        const mapHeight = Math.round(Math.max(190, Math.min(height * 0.44, 340)));
        return (
          <Tabs.Root
            value={tab}
            onValueChange={setTab}
            className="flex flex-col max-desk:h-auto!"
            style={{ height }}
          >
            <Tabs.List
              className="flex shrink-0 overflow-x-auto border-b border-scribe bg-sheet whitespace-nowrap"
              aria-label="Log and services"
            >
              <Tabs.Trigger value="log" className={TAB}>
                Log <span className="fig text-small">{log.length}</span>
              </Tabs.Trigger>
              <Tabs.Trigger value="service" className={TAB}>
                Services
              </Tabs.Trigger>
              <Tabs.Trigger value="time" className={TAB}>
                Over time
              </Tabs.Trigger>
            </Tabs.List>
            <Tabs.Content value="log" className="relative min-h-0 flex-1 overflow-auto bg-paper">
              <HitMap
                sheet={sheet}
                height={mapHeight}
                hits={log.filter(e => e.kind === 'hit')}
                draft={draft}
                chosen={chosen}
                onPlace={place => {
                  if (draft) setDraft({ ...draft, place, panel: plateUnder(facts.panels, place) });
                }}
              />
              {narrow &&
                (form ?? (
                  <div className="px-3 pt-3">
                    <Button look="strong" className="min-h-14 w-full text-title" onClick={() => fresh()}>
                      Add an entry
                    </Button>
                  </div>
                ))}
              {isError && (
                <p role="alert" className="px-3 pt-2 text-oxide">
                  The server does not answer: the log is not known.
                </p>
              )}
              <EntryList
                facts={facts}
                log={log}
                units={units}
                chosen={chosen}
                onChoose={e => setChosen(c => (c === e ? undefined : e))}
                onStrike={entry => void strike({ id, entry })}
                onRight={entry => {
                  adding.reset();
                  righting.reset();
                  setDraft(entry);
                }}
              />
            </Tabs.Content>
            <Tabs.Content value="service" className="relative min-h-0 flex-1 overflow-auto bg-paper">
              <ServiceTab facts={facts} units={units} />
            </Tabs.Content>
            <Tabs.Content value="time" className="relative min-h-0 flex-1 overflow-auto bg-paper">
              <TimeTab facts={facts} log={log} units={units} />
            </Tabs.Content>
          </Tabs.Root>
        );
      }}
      aside={!narrow && form ? form : <DueCard facts={facts} log={log} units={units} onAdd={fresh} />}
    />
  );
}
