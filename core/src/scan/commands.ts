import { addPart, command, type PlanDocument } from '../plan';
import { type ComponentKind, type Rig, type RigScan, wholeSurvey } from '../rig';
import { err, ok, roundTo } from '../units';
import type { Region } from './flood';

const withRig = (doc: PlanDocument, part: Partial<Rig>): PlanDocument => ({
  ...doc,
  rig: { ...doc.rig, ...part },
});

/** A scan laid on the vehicle; one that was there is replaced. */
export const layScan = command<{ readonly scan: RigScan }>({
  id: 'scan.lay',
  label: (_, { scan }) => `line up scan ${scan.name}`,
  run: (doc, { scan }) => withRig(doc, { scan }),
});

/** The scan taken off; its heights stay with the plan, so that this can be undone. */
export const removeScan = command<{ readonly scan: string }>({
  id: 'scan.remove',
  label: ({ rig }) => `remove scan ${rig.scan?.name ?? ''}`,
  run: ({ rig: { scan: _, ...rig }, ...doc }) => ({ ...doc, rig }),
});

const mm = (v: number): number => roundTo(v, 1);

/**
 * A part's outline and lowest place as a scan shows them, and its highest where that is above what was known: from below no part shows how high it is.
 * A new part of a kind where no part is named, as high as is seen.
 */
export const partFromScan = command<
  { readonly region: Region } & (
    | { readonly part: string; readonly kind?: never }
    | { readonly kind: ComponentKind; readonly part?: never }
  )
>({
  id: 'scan.part',
  label: ({ rig }, { part }) =>
    part === undefined
      ? 'add a part from the scan'
      : `take the ${rig.components.find(c => c.id === part)?.name ?? part} from the scan`,
  run: (doc, { part, kind, region }) => {
    const footprint = region.outline.map(([x, y]) => [mm(x), mm(y)] as const);
    const [zBottom, zTop] = [mm(region.zBottom), mm(Math.max(region.zTop, region.zBottom + 1))];
    if (part === undefined)
      return addPart.run(doc, { kind, name: '', z: zBottom, tall: mm(zTop - zBottom), footprint });
    if (!doc.rig.components.some(c => c.id === part)) return err(`there is no part ${part}`);
    return ok(
      withRig(doc, {
        components: doc.rig.components.map(c =>
          c.id === part ? { ...c, footprint, zBottom, zTop: Math.max(zTop, c.zTop) } : c,
        ),
      }),
    );
  },
});

/** A hole's place as it was pressed on a scan, mm. */
export const holeFromScan = command<{
  readonly mount: string;
  readonly at: readonly [number, number, number];
}>({
  id: 'scan.hole',
  label: (_, { mount }) => `take hole ${mount} from the scan`,
  run: (doc, { mount, at }) => {
    // the next reading would put it back
    if (wholeSurvey(doc.rig.survey).points.some(p => p.mount === mount))
      return err(`hole ${mount} is in the survey: its readings say where it is, better than a scan does`);
    return doc.rig.mounts.some(m => m.id === mount)
      ? ok(
          withRig(doc, {
            mounts: doc.rig.mounts.map(m =>
              m.id === mount
                ? { ...m, at: [mm(at[0]), mm(at[1]), mm(at[2])] as const, sigma: SCAN_SIGMA }
                : m,
            ),
          }),
        )
      : err(`there is no hole ${mount}`);
  },
});

/** A hole pressed on a scan of 4 mm is known to about this on each axis, mm: common practice, no source. */
const SCAN_SIGMA = [3, 3, 3] as const;
