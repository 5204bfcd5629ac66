import type { ResolvedJoint } from '@plate-fold/core/bolt';
import { Tabs } from 'radix-ui';
import { useState } from 'react';
import { Section } from '../../picture/section';
import { isStrap } from '../../picture/stack-layout';
import { useSize } from '../../picture/use-size';
import { Bench } from '../../shared/bench';
import { useFacts } from '../../state/derived';
import { useAppDispatch, useAppSelector } from '../../state/store';
import { jointSelected } from '../../state/view-slice';
import { Button } from '../../ui/button';
import { TAB } from '../../ui/tab-style';
import { ChooseTab } from './choose-tab';
import { DrillingTab } from './drilling-tab';
import { FactoryTab } from './factory-tab';
import { FitTab } from './fit-tab';
import { HardwareList } from './hardware-list';
import { JointCard } from './joint-card';
import { JointTable } from './joint-table';
import { KitTab } from './kit-tab';
import { ToolList } from './tool-list';
import { TorqueTab } from './torque-tab';

const LISTS = [
  ['choose', 'Choose for me', ChooseTab],
  ['fit', 'Will it bolt up', FitTab],
  ['torques', 'Torques', TorqueTab],
  ['drilling', 'Drilling', DrillingTab],
  ['factory', 'Factory parts', FactoryTab],
  ['bag', 'Hardware list', HardwareList],
  ['tools', 'Tools', ToolList],
  ['kit', 'Kit check', KitTab],
] as const;

function Drawing({ joint }: { joint: ResolvedJoint }) {
  const facts = useFacts();
  const units = useAppSelector(s => s.view.units);
  const [ref, size] = useSize<HTMLDivElement>();
  const [exploded, setExploded] = useState(false);
  return (
    <div className="relative min-h-72 flex-1 bg-paper max-desk:h-96 max-desk:flex-none">
      <div ref={ref} className="absolute inset-0 overflow-hidden">
        {size.width > 0 && (
          <Section
            joint={joint}
            seat={facts.seats.get(joint.id)}
            panels={facts.panels}
            units={units}
            width={size.width}
            height={size.height}
            exploded={exploded}
          />
        )}
      </div>
      {!isStrap(joint) && (
        <Button
          className="absolute top-3 right-3"
          aria-pressed={exploded}
          onClick={() => setExploded(x => !x)}
        >
          {exploded ? 'Assemble' : 'Explode'}
        </Button>
      )}
    </div>
  );
}

/** Bolt: every joint in section, then what to buy and what to lay out. */
export function BoltStage() {
  const facts = useFacts();
  const dispatch = useAppDispatch();
  const chosenId = useAppSelector(s => s.view.joint);
  const panel = useAppSelector(s => s.view.panel);
  const list = panel === undefined ? facts.joints : facts.joints.filter(j => j.joint.panels.includes(panel));
  const chosen = facts.joints.find(j => j.id === chosenId) ?? list[0] ?? facts.joints[0];
  return (
    <Bench
      asideName="Chosen joint"
      work={(_, height) => (
        <Tabs.Root defaultValue="joints" className="flex flex-col max-desk:h-auto!" style={{ height }}>
          <Tabs.List
            className="flex shrink-0 overflow-x-auto border-b border-scribe bg-sheet whitespace-nowrap"
            aria-label="Joints and lists"
          >
            <Tabs.Trigger value="joints" className={TAB}>
              Joints <span className="fig text-small">{facts.joints.length}</span>
            </Tabs.Trigger>
            {LISTS.map(([value, name]) => (
              <Tabs.Trigger key={value} value={value} className={TAB}>
                {name}
              </Tabs.Trigger>
            ))}
          </Tabs.List>
          <Tabs.Content value="joints" className="flex min-h-0 flex-1 max-desk:flex-col">
            {chosen ? (
              <>
                <JointTable joints={list} chosen={chosen.id} onChoose={id => dispatch(jointSelected(id))} />
                <Drawing joint={chosen} />
              </>
            ) : (
              <p className="p-4">
                No bolts yet: nothing holds the plates. Add bolts on Cover, under Held by.
              </p>
            )}
          </Tabs.Content>
          {LISTS.map(([value, , List]) => (
            <Tabs.Content
              key={value}
              value={value}
              className="relative min-h-0 flex-1 overflow-auto bg-paper"
            >
              <List />
            </Tabs.Content>
          ))}
        </Tabs.Root>
      )}
      aside={chosen ? <JointCard key={chosen.id} joint={chosen} /> : null}
    />
  );
}
