import { mergePlates } from '@plate-fold/core/bolt';
import { addTwin } from '@plate-fold/core/bracket';
import { roughPlate } from '@plate-fold/core/cover';
import { dxfUnit, platesOfDrawing } from '@plate-fold/core/formats';
import { boxOf, type Polygon } from '@plate-fold/core/geometry';
import {
  addPlates,
  copyPlate,
  isBracket,
  mirrorPlate,
  type PlanDocument,
  removePlates,
  splitPlate,
} from '@plate-fold/core/plan';
import { MM_PER_INCH } from '@plate-fold/core/units';
import {
  CircleDot,
  Combine,
  Copy,
  CornerDownRight,
  FlipVertical2,
  Plus,
  RectangleHorizontal,
  Scissors,
  Sparkles,
  Trash2,
} from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { type ReactNode, useRef, useState } from 'react';
import { useRun } from '../../state/commands/run';
import { useFacts } from '../../state/derived';
import { useAppDispatch, useAppSelector } from '../../state/store';
import { noticeGiven, panelSelected } from '../../state/view-slice';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { MeasureInput } from '../../ui/measure-input';
import { Select } from '../../ui/select';
import { readDxfInWorker } from '../../work/read-client';
import type { Pick } from './use-pick';

const TOOL =
  'flex min-h-11 shrink-0 items-center gap-1 rounded-edge px-1.5 text-small font-semibold hover:bg-paper disabled:opacity-35';
const ITEM =
  'flex min-h-11 cursor-pointer items-center gap-3 px-4 outline-none first-letter:uppercase data-[highlighted]:bg-fluid data-[highlighted]:text-onfluid';

const AROUND = 25;

function Tool(props: {
  name: string;
  /** a word of the name that stands for it where there is little room */
  short?: string;
  icon: ReactNode;
  disabled?: boolean;
  onPress: () => void;
}) {
  return (
    <button
      type="button"
      className={TOOL}
      disabled={props.disabled}
      aria-label={props.name}
      title={props.name}
      onClick={props.onPress}
    >
      {props.icon}
      {props.short ?? props.name}
    </button>
  );
}

/** The last plate that a change has added; none where it added none. */
const newest = (before: PlanDocument, after: PlanDocument): string | undefined =>
  after.plan.panels.findLast(p => !before.plan.panels.some(q => q.id === p.id))?.id;

/** Adds a plate for an outline on the ground plane and chooses it. */
export function useAddPlate(): (outline: Polygon, name: string) => void {
  const facts = useFacts();
  const run = useRun();
  const dispatch = useAppDispatch();
  return (outline, name) => {
    const after = run(addPlates, { panels: [roughPlate(facts.rig, outline, name, facts.lowestBare.z)] });
    if (after) dispatch(panelSelected(newest(facts.document, after)));
  };
}

/** What can be done with plates: add, propose, split, merge, mirror, copy, take out. */
export function PlateTools(props: {
  drawing: boolean;
  onDraw: (on: boolean) => void;
  /** what taps on the map are for, and whether the first of two is made */
  picking?: Pick;
  picked: boolean;
  onPick: (what: Pick | undefined) => void;
  onPropose: () => void;
}) {
  const facts = useFacts();
  const run = useRun();
  const dispatch = useAppDispatch();
  const { panel: id, units } = useAppSelector(s => s.view);
  const addPlate = useAddPlate();
  const file = useRef<HTMLInputElement>(null);
  const [ask, setAsk] = useState<'split' | 'merge' | 'unit'>();
  const [drawing, setDrawing] = useState('');
  const any = facts.document.plan.panels.find(p => p.id === id);
  const panel = any && !isBracket(any) ? any : undefined;
  const [at, setAt] = useState<number>();
  const [axis, setAxis] = useState<'x' | 'y'>('x');
  const mean = (k: 0 | 1): number =>
    panel
      ? panel.base.origin[k] + panel.base.outline.reduce((s, q) => s + q[k], 0) / panel.base.outline.length
      : 0;
  const middle = { x: mean(0), y: mean(1) };
  /** runs what adds a plate, and chooses it */
  const chosen = (after: PlanDocument | false): void => {
    if (after) dispatch(panelSelected(newest(facts.document, after)));
  };
  const over = facts.rig.components.filter(c => !c.moves);
  const take = async (text: string, perUnit?: number): Promise<void> => {
    const read = await readDxfInWorker(text, perUnit);
    if (!read.ok) {
      if (perUnit === undefined && dxfUnit(text) === undefined) {
        setDrawing(text);
        setAsk('unit');
      } else dispatch(noticeGiven(`The drawing was not taken: ${read.fault}.`));
      return;
    }
    chosen(run(addPlates, { panels: platesOfDrawing(read.value, facts.rig, facts.lowestBare.z) }));
  };
  const hint = props.drawing
    ? 'Drag a rectangle, or tap corner by corner and close on the first.'
    : props.picking === 'bracket'
      ? props.picked
        ? 'Tap the plate where the bracket is bolted to it, or a second hole for a hat between both.'
        : 'Tap a free hole of the vehicle for the bracket.'
      : props.picking === 'hole'
        ? `Tap where to bolt plate ${panel?.mark ?? ''}.`
        : props.picking === 'bar'
          ? props.picked
            ? 'Tap its other end.'
            : 'Tap a hole or a member for its first end.'
          : undefined;
  if (hint)
    return (
      <div className="flex min-h-11 items-center justify-between gap-3 border-b border-scribe bg-sheet px-3">
        <p className="text-body font-semibold" role="status">
          {hint}
        </p>
        <Button
          className="min-h-9"
          onClick={() => (props.drawing ? props.onDraw(false) : props.onPick(undefined))}
        >
          Stop
        </Button>
      </div>
    );
  return (
    <div
      role="toolbar"
      aria-label="Plates"
      className="flex items-center gap-0.5 overflow-x-auto border-b border-scribe bg-sheet px-2"
    >
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className={TOOL}>
          <Plus size={17} aria-hidden="true" /> Add a plate
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="start"
            className="z-50 max-h-96 min-w-60 overflow-auto rounded-edge border border-ink bg-paper py-1 text-ink shadow-lg"
          >
            <DropdownMenu.Item className={ITEM} onSelect={() => props.onDraw(true)}>
              Draw it on the map
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={() => file.current?.click()}>
              From a drawing (DXF)
            </DropdownMenu.Item>
            <DropdownMenu.Separator className="my-1 h-px bg-scribe" />
            {over.map(c => (
              <DropdownMenu.Item
                key={c.id}
                className={ITEM}
                onSelect={() => {
                  const { min, max } = boxOf(c.footprint);
                  addPlate(
                    [
                      [min[0] - AROUND, min[1] - AROUND],
                      [max[0] + AROUND, min[1] - AROUND],
                      [max[0] + AROUND, max[1] + AROUND],
                      [min[0] - AROUND, max[1] + AROUND],
                    ],
                    c.name,
                  );
                }}
              >
                Over {c.name}
              </DropdownMenu.Item>
            ))}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      <input
        ref={file}
        type="file"
        accept=".dxf"
        aria-label="DXF drawing"
        className="sr-only"
        tabIndex={-1}
        onChange={e => {
          const f = e.target.files?.[0];
          e.target.value = '';
          if (f) void f.text().then(t => take(t));
        }}
      />
      <Tool
        name="Suggest plates"
        icon={<Sparkles size={17} aria-hidden="true" />}
        onPress={props.onPropose}
      />
      <span aria-hidden="true" className="mx-1 h-6 w-px bg-scribe" />
      <Tool
        name="Drill a hole"
        short="Hole"
        icon={<CircleDot size={17} aria-hidden="true" />}
        disabled={!panel}
        onPress={() => props.onPick('hole')}
      />
      <Tool
        name="Add a crossbar"
        short="Crossbar"
        icon={<RectangleHorizontal size={17} aria-hidden="true" />}
        onPress={() => props.onPick('bar')}
      />
      <Tool
        name="Add a bracket"
        short="Bracket"
        icon={<CornerDownRight size={17} aria-hidden="true" />}
        disabled={facts.plates.length === 0}
        onPress={() => props.onPick('bracket')}
      />
      <span aria-hidden="true" className="mx-1 h-6 w-px bg-scribe" />
      <Tool
        name="Split"
        icon={<Scissors size={17} aria-hidden="true" />}
        disabled={!panel}
        onPress={() => {
          setAt(undefined);
          setAsk('split');
        }}
      />
      <Tool
        name="Merge"
        icon={<Combine size={17} aria-hidden="true" />}
        disabled={!panel || facts.panels.length < 2}
        onPress={() => setAsk('merge')}
      />
      <Tool
        name="Mirror"
        icon={<FlipVertical2 size={17} aria-hidden="true" />}
        disabled={!any}
        onPress={() =>
          any &&
          chosen(isBracket(any) ? run(addTwin, { bracket: any.id }) : run(mirrorPlate, { panel: any.id }))
        }
      />
      <Tool
        name="Duplicate"
        icon={<Copy size={17} aria-hidden="true" />}
        disabled={!panel}
        onPress={() => panel && chosen(run(copyPlate, { panel: panel.id }))}
      />
      <Tool
        name="Delete"
        icon={<Trash2 size={17} aria-hidden="true" />}
        disabled={!any}
        onPress={() => {
          if (any && run(removePlates, { panels: [any.id] })) dispatch(panelSelected(undefined));
        }}
      />
      {panel && (
        <>
          <Dialog
            open={ask === 'split'}
            onClose={() => setAsk(undefined)}
            title={`Split plate ${panel.mark}`}
            about="Makes two plates that lap; the front or left one is outside. Each bolt stays with the plate it goes through."
          >
            <Select<'x' | 'y'>
              label="Which way"
              value={axis}
              choices={[
                { value: 'x', name: 'across: a front and a rear plate' },
                { value: 'y', name: 'along: a left and a right plate' },
              ]}
              onChoose={v => {
                setAxis(v);
                setAt(undefined);
              }}
              className="mb-2 w-full"
            />
            <MeasureInput
              key={axis}
              label={axis === 'x' ? 'Where, behind the front axle' : 'Where, right of center line'}
              value={at ?? Math.round(middle[axis])}
              units={units}
              onEnter={v => void setAt(v)}
            />
            <Button
              look="strong"
              className="mt-3 w-full"
              onClick={() => {
                const where = at ?? Math.round(middle[axis]);
                run(splitPlate, { panel: panel.id, line: axis === 'x' ? { x: where } : { y: where } });
                setAsk(undefined);
              }}
            >
              Split
            </Button>
          </Dialog>
          <Dialog
            open={ask === 'merge'}
            onClose={() => setAsk(undefined)}
            title={`Merge plate ${panel.mark} with`}
            about="The other plate takes this one’s plane. Flanges are removed; add them again afterwards."
          >
            <div className="grid gap-2">
              {facts.document.plan.panels
                .filter(p => p.id !== panel.id)
                .map(p => (
                  <Button
                    key={p.id}
                    onClick={() => {
                      run(mergePlates, { panel: panel.id, other: p.id });
                      setAsk(undefined);
                    }}
                  >
                    {p.mark} {p.name}
                  </Button>
                ))}
            </div>
          </Dialog>
        </>
      )}
      <Dialog
        open={ask === 'unit'}
        onClose={() => setAsk(undefined)}
        title="What unit is the drawing in?"
        about="The file does not say."
      >
        <div className="grid grid-cols-2 gap-2">
          {(
            [
              ['millimeters', 1],
              ['inches', MM_PER_INCH],
            ] as const
          ).map(([name, per]) => (
            <Button
              key={name}
              onClick={() => {
                setAsk(undefined);
                void take(drawing, per);
              }}
            >
              {name}
            </Button>
          ))}
        </div>
      </Dialog>
    </div>
  );
}
