import type { Polygon, Vec2, Vec3 } from '../geometry';
import type { HoleCondition, Rig } from './rig';

/** Lists of a rig whose entries stand somewhere. */
export type RigList = 'components' | 'members' | 'mounts' | 'servicePoints' | 'factoryParts';

/** The rig with one entry of a list changed. */
export const withEntry = <K extends RigList>(
  rig: Rig,
  list: K,
  id: string,
  change: (entry: Rig[K][number]) => Rig[K][number],
): Rig => ({
  ...rig,
  [list]: (rig[list] as readonly Rig[K][number][]).map(e => (e.id === id ? change(e) : e)),
});

const shifted = (o: Polygon, [dx, dy]: Vec2): Polygon => o.map(([x, y]): Vec2 => [x + dx, y + dy]);

/** Moves an entry on the ground plane, mm; a member takes its holes along. */
export function entryMoved(rig: Rig, list: RigList, id: string, [dx, dy]: Vec2): Rig {
  const at = ([x, y, z]: Vec3): Vec3 => [x + dx, y + dy, z];
  if (list === 'components')
    return withEntry(rig, list, id, c => ({ ...c, footprint: shifted(c.footprint, [dx, dy]) }));
  if (list === 'members') {
    const moved = withEntry(rig, list, id, m => ({ ...m, footprint: shifted(m.footprint, [dx, dy]) }));
    return { ...moved, mounts: moved.mounts.map(m => (m.member === id ? { ...m, at: at(m.at) } : m)) };
  }
  if (list === 'mounts') return withEntry(rig, list, id, m => ({ ...m, at: at(m.at) }));
  if (list === 'servicePoints') return withEntry(rig, list, id, s => ({ ...s, at: at(s.at) }));
  return withEntry(rig, list, id, f => ({ ...f, at: at(f.at) }));
}

/** The rig with points of its survey that stood for what is no more standing for themselves. */
function unsurveyed(rig: Rig): Rig {
  const { survey, mounts, components } = rig;
  if (!survey?.points) return rig;
  const points = survey.points.map(({ mount, corner, ...p }) => ({
    ...p,
    ...(mount !== undefined && mounts.some(m => m.id === mount) ? { mount } : {}),
    ...(corner && components.some(c => c.id === corner.component) ? { corner } : {}),
  }));
  return { ...rig, survey: { ...survey, points } };
}

/** Takes an entry out; holes go with their member, service points with their component. */
export function entryRemoved(rig: Rig, list: RigList, id: string): Rig {
  const gone: Rig = { ...rig, [list]: (rig[list] as readonly { id: string }[]).filter(e => e.id !== id) };
  const left = unsurveyed(
    list === 'members' ? { ...gone, mounts: gone.mounts.filter(m => m.member !== id) } : gone,
  );
  if (list === 'members') return left;
  if (list === 'components')
    return {
      ...left,
      servicePoints: left.servicePoints.filter(s => s.component !== id),
      mounts: left.mounts.map(m =>
        m.behind?.component === id || m.carries === id
          ? {
              ...m,
              behind: m.behind?.component === id ? undefined : m.behind,
              carries: m.carries === id ? undefined : m.carries,
            }
          : m,
      ),
    };
  return left;
}

/** What a hole in that condition wants before it can hold: common practice, no source. */
export const REPAIR: Readonly<Record<HoleCondition, string>> = {
  good: 'nothing',
  rusted: 'penetrating oil, a thread chaser, a wire brush',
  stripped: 'a rivet nut or a larger thread',
  'broken-nut': 'the nut punched or drilled out; a flange nut where a hand reaches, else a rivet nut',
  blocked: 'another hole, or a longer bolt shared with what uses it',
};
