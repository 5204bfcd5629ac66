import type { Facts } from '@plate-fold/core/derive';
import { type FoldedPanel, facetInSpace, foldedSolid, pose } from '@plate-fold/core/fold';
import { boxesMeet, boxOf, type Vec2 } from '@plate-fold/core/geometry';
import { isBracket } from '@plate-fold/core/plan';
import { formatLength } from '@plate-fold/core/units';
import { RadioGroup, Toggle } from 'radix-ui';
import { lazy, Suspense, useMemo, useState } from 'react';
import { FoldedView } from '../../picture/folded-view';
import type { Ghost, Section, Solid } from '../../picture/space/contents';
import type { EYES } from '../../picture/space/eyes';
import { hasWebGl } from '../../picture/space/webgl';
import { useSize } from '../../picture/use-size';
import { useFacts } from '../../state/derived';
import { useAppSelector } from '../../state/store';
import { Select } from '../../ui/select';
import { Slider } from '../../ui/slider';

const SpaceView = lazy(() => import('../../picture/space/space-view'));

/** Parts and members this near to the plate in plan are drawn behind it, mm. */
const AROUND = 120;

const solidOf = (p: FoldedPanel, chosen: boolean, share = 1): Solid => ({
  id: p.panel.id,
  tone: `--${p.material.family}`,
  chosen,
  triangles: foldedSolid(p, share === 1 ? undefined : pose(p, () => share)),
});

/** Parts and members of the vehicle over a plate. */
function ghostsOver(facts: Facts, f: FoldedPanel): readonly Ghost[] {
  const { min, max } = boxOf(f.facets.flatMap(x => facetInSpace(x).map((q): Vec2 => [q[0], q[1]])));
  const near = {
    min: [min[0] - AROUND, min[1] - AROUND] as const,
    max: [max[0] + AROUND, max[1] + AROUND] as const,
  };
  return [...facts.rig.components, ...facts.rig.members].filter(g => boxesMeet(boxOf(g.footprint), near));
}

type Cut = 'none' | Section['axis'];

/** The plate in space, folded by a share, with its neighbors and what it guards; cut open where asked. */
export function SpacePane({ folded }: { folded: FoldedPanel }) {
  const facts = useFacts();
  const { units, theme } = useAppSelector(s => s.view);
  const [box, size] = useSize<HTMLDivElement>();
  const [share, setShare] = useState(1);
  const [look, setLook] = useState<{ eye: keyof typeof EYES; n: number }>({ eye: 'below', n: 0 });
  // a bracket is hidden by the plate that hangs on it
  const [withPlates, setWithPlates] = useState(!isBracket(folded.panel));
  const [withParts, setWithParts] = useState(true);
  const [cut, setCut] = useState<Cut>('none');
  const [where, setWhere] = useState(0.5);
  const [flat, setFlat] = useState(!hasWebGl());
  const { panels } = facts;
  const neighbors = useMemo(
    () => (withPlates ? panels.filter(p => p.panel.id !== folded.panel.id).map(p => solidOf(p, false)) : []),
    [panels, folded.panel.id, withPlates],
  );
  const own = useMemo(() => solidOf(folded, true, share), [folded, share]);
  const solids = useMemo(() => (flat ? [own] : [own, ...neighbors]), [own, neighbors, flat]);
  const ghosts = useMemo(() => (withParts ? ghostsOver(facts, folded) : []), [facts, folded, withParts]);
  const range = useMemo(() => {
    const i = cut === 'y' ? 1 : 0;
    const at = solidOf(folded, true)
      .triangles.flat()
      .map(p => p[i] as number);
    return { from: Math.min(...at), to: Math.max(...at) };
  }, [folded, cut]);
  const at = range.from + (range.to - range.from) * where;
  const section = useMemo(
    (): Section | undefined => (cut === 'none' ? undefined : { axis: cut, at }),
    [cut, at],
  );
  const label = `Plate ${folded.panel.mark} folded`;
  const height = Math.max(260, size.height);
  const chip = (on: boolean): string =>
    `min-h-11 rounded-edge border px-2.5 text-body ${on ? 'border-fluid bg-paper font-semibold' : 'border-transparent text-ink2 hover:bg-paper'}`;
  return (
    <div className="flex min-w-0 flex-1 flex-col bg-ground">
      <div className="flex flex-wrap items-center gap-1 border-b border-scribe bg-sheet px-2 py-1">
        <RadioGroup.Root
          aria-label="Look from"
          value={look.eye}
          onValueChange={eye => setLook(l => ({ eye: eye as typeof l.eye, n: l.n + 1 }))}
          className="flex"
        >
          {(['below', 'ahead', 'side', 'above'] as const).map(e => (
            <RadioGroup.Item
              key={e}
              value={e}
              className={chip(e === look.eye)}
              // chosen again it brings the eye back from wherever it was turned
              onClick={() => e === look.eye && setLook(l => ({ ...l, n: l.n + 1 }))}
            >
              {e}
            </RadioGroup.Item>
          ))}
        </RadioGroup.Root>
        <span className="flex-1" />
        {!flat && (
          <>
            <Toggle.Root pressed={withPlates} className={chip(withPlates)} onPressedChange={setWithPlates}>
              plates
            </Toggle.Root>
            <Toggle.Root pressed={withParts} className={chip(withParts)} onPressedChange={setWithParts}>
              parts
            </Toggle.Root>
          </>
        )}
      </div>
      <div ref={box} className="min-h-[16.5rem] flex-1 overflow-hidden">
        {size.width > 0 &&
          (flat ? (
            <FoldedView
              label={label}
              solids={solids}
              eye={look.eye}
              about={String(look.n)}
              width={size.width}
              height={height}
            />
          ) : (
            <Suspense fallback={<p className="p-4 text-ink2">Loading the 3D view …</p>}>
              <SpaceView
                label={label}
                solids={solids}
                ghosts={ghosts}
                section={section}
                eye={look.eye}
                about={`${folded.panel.id} ${look.n}`}
                theme={theme}
                width={size.width}
                height={height}
                onLost={() => setFlat(true)}
              />
            </Suspense>
          ))}
      </div>
      <div className="border-t border-scribe bg-sheet px-3">
        <div className="flex min-h-13 items-center gap-3">
          <span>flat</span>
          <Slider
            label="Folded share"
            value={Math.round(share * 100)}
            most={100}
            onChange={v => setShare(v / 100)}
          />
          <span>folded</span>
        </div>
        {!flat && (
          <div className="flex min-h-13 items-center gap-3 border-t border-scribe/60">
            <Select
              label="Section"
              value={cut}
              choices={[
                { value: 'none', name: 'not cut' },
                { value: 'x', name: 'cut across' },
                { value: 'y', name: 'cut along' },
              ]}
              onChoose={setCut}
              className="w-32 shrink-0 text-body"
            />
            <Slider
              label="Place of the section"
              said={formatLength(at, units)}
              disabled={cut === 'none'}
              value={Math.round(where * 100)}
              most={100}
              onChange={v => setWhere(v / 100)}
            />
            <span className="fig w-20 text-right text-body text-ink2">
              {cut === 'none' ? '' : `${cut} ${formatLength(at, units)}`}
            </span>
          </div>
        )}
      </div>
    </div>
  );
}
