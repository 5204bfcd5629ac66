import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boxOf } from '../geometry';
import { blankPlan, checkDocument } from '../plan';
import {
  BODIES,
  entryMoved,
  entryRemoved,
  memberName,
  presentRig,
  type Rig,
  type RigList,
  startingRig,
  withChoice,
  withEntry,
} from './index';

const LISTS = ['components', 'members', 'mounts', 'servicePoints', 'factoryParts'] as const;
const RIGS = BODIES.map(body => startingRig(body));
/** Every entry there is: a rig, a list, an id. */
const ENTRIES = RIGS.flatMap(rig => LISTS.flatMap(list => rig[list].map(e => [rig, list, e.id] as const)));
const entry = fc.constantFrom(...ENTRIES);
const by = fc.tuple(fc.integer({ min: -900, max: 900 }), fc.integer({ min: -900, max: 900 }));

const faultsOf = (rig: Rig): readonly unknown[] => {
  const r = checkDocument(blankPlan(rig, 'x', 'x'));
  return r.ok ? [] : r.faults;
};
/** Where an entry lies: the least corner of its outline, or its point. */
const placeOf = (rig: Rig, list: RigList, id: string): readonly [number, number] => {
  const e = rig[list].find(x => x.id === id)!;
  if ('footprint' in e) return boxOf(e.footprint).min;
  return [e.at[0], e.at[1]];
};

describe('an entry that is moved', () => {
  it('lies that much elsewhere, at its own height, and nothing else does but a member’s holes', () => {
    fc.assert(
      fc.property(entry, by, ([rig, list, id], d) => {
        const moved = entryMoved(rig, list, id, d);
        const [x, y] = placeOf(rig, list, id);
        expect(placeOf(moved, list, id)).toEqual([x + d[0], y + d[1]]);
        for (const l of LISTS)
          for (const [i, e] of rig[l].entries()) {
            const now = moved[l][i]!;
            if (l === list && e.id === id) continue;
            const own = l === 'mounts' && list === 'members' && (e as Rig['mounts'][number]).member === id;
            if (!own) expect(now).toBe(e);
            else
              expect((now as Rig['mounts'][number]).at).toEqual([
                (e as Rig['mounts'][number]).at[0] + d[0],
                (e as Rig['mounts'][number]).at[1] + d[1],
                (e as Rig['mounts'][number]).at[2],
              ]);
          }
      }),
    );
  });
  it('and moved back is where it was', () => {
    fc.assert(
      fc.property(entry, by, ([rig, list, id], [dx, dy]) => {
        expect(entryMoved(entryMoved(rig, list, id, [dx, dy]), list, id, [-dx, -dy])).toEqual(rig);
      }),
    );
  });
  it('that does not exist changes nothing', () => {
    for (const rig of RIGS)
      for (const list of LISTS) expect(entryMoved(rig, list, 'none such', [5, 5])).toEqual(rig);
  });
});

describe('an entry that is taken out', () => {
  it.each(
    ENTRIES.map(([rig, list, id]) => [`${id} of the ${list} of a ${rig.body}`, rig, list, id] as const),
  )('%s leaves a sound rig: nothing points to what is gone', (_, rig, list, id) => {
    const left = entryRemoved(rig, list, id);
    expect(left[list].some(e => e.id === id)).toBe(false);
    expect(left[list]).toHaveLength(rig[list].length - 1);
    expect(faultsOf(left)).toEqual([]);
  });
  it('one after another, in any order', () => {
    fc.assert(
      fc.property(fc.constantFrom(...RIGS), fc.infiniteStream(fc.nat()), (rig, picks) => {
        let left = rig;
        for (let i = 0; i < 8; i++) {
          const all = LISTS.flatMap(l => left[l].map(e => [l, e.id] as const));
          const [list, id] = all[picks.next().value % all.length]!;
          left = entryRemoved(left, list, id);
          expect(faultsOf(left)).toEqual([]);
        }
      }),
      { numRuns: 40 },
    );
  });
});

describe('an entry that is changed', () => {
  it('is the only one, whatever is changed in it', () => {
    fc.assert(
      fc.property(fc.constantFrom(...RIGS), fc.nat(), fc.integer({ min: 1, max: 900 }), (rig, n, z) => {
        const c = rig.components[n % rig.components.length]!;
        const next = withEntry(rig, 'components', c.id, e => ({ ...e, zBottom: z }));
        expect(next.components.map(e => e.zBottom)).toEqual(
          rig.components.map(e => (e.id === c.id ? z : e.zBottom)),
        );
        expect({ ...next, components: rig.components }).toEqual(rig);
      }),
    );
  });
});

describe('what is on the vehicle', () => {
  it.each(RIGS.map(rig => [rig.body, rig] as const))('of a %s goes by its options, each choice', (_, rig) => {
    for (const option of rig.options)
      for (const choice of option.choices) {
        const here = presentRig(withChoice(rig, option.id, choice.id));
        for (const list of ['components', 'mounts', 'servicePoints', 'factoryParts'] as const)
          for (const e of rig[list]) {
            const asked = e.when?.[option.id];
            // a part that this choice rules out is gone; one that asks for no option is always there
            if (asked && !asked.includes(choice.id)) expect(here[list], e.id).not.toContain(e);
            if (!e.when) expect(here[list], e.id).toContain(e);
          }
        expect(here.members).toEqual(rig.members);
      }
  });
  it('is the same again once an option is put back', () => {
    for (const rig of RIGS)
      for (const option of rig.options) {
        const before = rig.selected[option.id]!;
        for (const choice of option.choices)
          expect(presentRig(withChoice(withChoice(rig, option.id, choice.id), option.id, before))).toEqual(
            presentRig(rig),
          );
      }
  });
});

describe('what a member is called', () => {
  it.each(RIGS.map(rig => [rig.body, rig] as const))('differs for every one of a %s', (_, rig) => {
    const names = rig.members.map(m => memberName(presentRig(rig), m.id));
    expect(new Set(names).size).toBe(names.length);
  });
  it('is its own name where it has one, and follows where it lies where it has none', () => {
    const bare = (x: number, name?: string) =>
      ({
        id: `m${x}`,
        kind: 'crossmember',
        ...(name ? { name } : {}),
        footprint: [
          [x, -400],
          [x + 60, -400],
          [x + 60, 400],
          [x, 400],
        ],
      }) as unknown as Rig['members'][number];
    const named = (...members: Rig['members'][number][]) => {
      const rig = presentRig({ ...RIGS[0]!, members });
      return members.map(m => memberName(rig, m.id));
    };
    expect(named(bare(900), bare(100), bare(500, 'gearbox bridge'), bare(1700))).toEqual([
      'second crossmember',
      'front crossmember',
      'gearbox bridge',
      'rear crossmember',
    ]);
    expect(named(bare(900))).toEqual(['crossmember']);
    expect(memberName(presentRig(RIGS[0]!), 'none such')).toBe('a member that is not there');
  });
  it('takes the driver’s side from the vehicle', () => {
    const rig = startingRig('truck');
    const rails = rig.members.filter(m => m.kind === 'rail');
    const left = rails.find(m => boxOf(m.footprint).max[1] < 0);
    if (!left) throw new Error('no left rail');
    const called = (driverSide: Rig['driverSide']) =>
      memberName(
        presentRig({
          ...rig,
          driverSide,
          members: rig.members.map(m => ({ ...m, name: undefined })) as never,
        }),
        left.id,
      );
    expect(called('left')).toBe('driver’s side frame rail');
    expect(called('right')).toBe('passenger’s side frame rail');
  });
});
