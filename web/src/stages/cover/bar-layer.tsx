import type { Facts } from '@plate-fold/core/derive';
import { contains, type Vec2 } from '@plate-fold/core/geometry';
import { barFootprint, type Crossbar, callOf, moveBarEnd } from '@plate-fold/core/plan';
import type { MouseEvent } from 'react';
import { flatsFromAbove, pathOf } from '../../picture/paths';
import type { SheetScale } from '../../picture/sheet-scale';
import { mapPlane, useGrip } from '../../picture/use-grip';
import { useHand, useRun } from '../../state/commands/run';

/** How near a hole catches the end of a bar, px. */
const CATCH = 14;

/**
 * The crossbars on the map: a press chooses one; the ends of the chosen one are dragged to other holes, or to new ones in a member. Where
 * a plate hides the bar the first press means the plate, the next one the bar.
 */
export function BarLayer(props: {
  readonly facts: Facts;
  readonly scale: SheetScale;
  readonly height: number;
  readonly chosen?: string;
  /** the chosen plate */
  readonly panel?: string;
  readonly onChoose: (id: string) => void;
  readonly onPanel: (id: string) => void;
}) {
  const { facts, scale, height, chosen, panel, onChoose, onPanel } = props;
  const put = (p: Vec2): Vec2 => [scale.X(p[0]), scale.Y(p[1], height)];
  const pressed = (e: MouseEvent<SVGGElement>, bar: string): void => {
    e.stopPropagation();
    const box = (e.currentTarget.ownerSVGElement as SVGSVGElement).getBoundingClientRect();
    const at: Vec2 = [scale.xAt(e.clientX - box.left), scale.yAt(e.clientY - box.top, height)];
    const over = facts.panels.filter(p => flatsFromAbove(p).some(f => contains(f, at)));
    const hides = bar === chosen || over.some(p => p.panel.id === panel) ? undefined : over[0];
    if (hides) onPanel(hides.panel.id);
    else onChoose(bar);
  };
  return (
    <g>
      {facts.document.plan.crossbars.map(bar => (
        <g
          key={bar.id}
          role="button"
          tabIndex={0}
          aria-label={`Crossbar ${bar.name}`}
          aria-pressed={bar.id === chosen}
          className="cursor-pointer outline-none focus-visible:[&>path:last-child]:stroke-[4px]"
          onClick={e => pressed(e, bar.id)}
          onKeyDown={e => {
            if (e.key !== 'Enter' && e.key !== ' ') return;
            e.preventDefault();
            e.stopPropagation();
            onChoose(bar.id);
          }}
        >
          <path
            d={pathOf([barFootprint(bar)], put)}
            fill="transparent"
            stroke="transparent"
            strokeWidth="18"
          />
          <path
            d={pathOf([barFootprint(bar)], put)}
            fill={bar.id === chosen ? 'var(--fluid)' : 'var(--ghostline)'}
            fillOpacity="0.3"
            stroke={bar.id === chosen ? 'var(--fluid)' : 'var(--ink)'}
            strokeWidth={bar.id === chosen ? 2.4 : 1.4}
            strokeDasharray="9 3"
          />
        </g>
      ))}
      {facts.document.plan.crossbars
        .filter(b => b.id === chosen)
        .map(bar => (
          <BarEnds key={bar.id} bar={bar} facts={facts} scale={scale} height={height} />
        ))}
    </g>
  );
}

function BarEnds({
  bar,
  facts,
  scale,
  height,
}: {
  bar: Crossbar;
  facts: Facts;
  scale: SheetScale;
  height: number;
}) {
  const run = useRun();
  const grip = useGrip(mapPlane(scale, height), useHand());
  const ends = bar.mounts
    .slice(0, 2)
    .flatMap(id => facts.rig.mounts.find(m => m.id === id) ?? [])
    .map((m): Vec2 => [m.at[0], m.at[1]]);
  const move = (end: 0 | 1, at: Vec2, reach: number) => ({ bar: bar.id, end, at, reach });
  return (
    <>
      {ends.map((at, i) => {
        const end = i as 0 | 1;
        const [cx, cy] = [scale.X(at[0]), scale.Y(at[1], height)];
        return (
          <g
            // the two ends are told apart by their place in the list alone
            // biome-ignore lint/suspicious/noArrayIndexKey: they never change places
            key={i}
            role="button"
            tabIndex={0}
            aria-label={`${i === 0 ? 'First' : 'Second'} end of ${bar.name}`}
            className="cursor-move"
            style={{ touchAction: 'none' }}
            {...grip(
              `bar ${bar.id} ${i}`,
              {
                to: (x, y) => callOf(moveBarEnd, move(end, [x, y], CATCH / scale.k)),
                by: (dx, dy, group) => run(moveBarEnd, move(end, [at[0] + dx, at[1] + dy], 0.5), group),
              },
              at,
            )}
          >
            <circle cx={cx} cy={cy} r="20" fill="transparent" />
            <circle cx={cx} cy={cy} r="8" fill="var(--paper)" stroke="var(--fluid)" strokeWidth="2.4" />
          </g>
        );
      })}
    </>
  );
}
