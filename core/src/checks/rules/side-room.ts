import { headStands, looksDown, type ResolvedJoint } from '../../bolt';
import { roomBefore } from '../../cover';
import type { Facts } from '../../derive';
import { add3, scale3 } from '../../geometry';
import { isBracket } from '../../plan';
import { memberName } from '../../rig';
import { coveredLater } from '../../sequence';
import { partName, plateWord, type Rule, type Unsigned } from '../finding';

/** A socket on a ratchet wants so much room along the bolt, a box wrench so much, and either is so wide about it, mm: common practice, no source. */
const SOCKET = 70;
const WRENCH = 15;
const WIDE = 0.75;

/** Where the head of a bolt that looks to a side ends, along its own axis. */
function headEnd(facts: Facts, j: ResolvedJoint) {
  const seat = facts.seats.get(j.id);
  if (!seat) return undefined;
  const outer = seat.plates[0]?.far ?? 0;
  return { at: add3(seat.face, scale3(seat.axis, outer + headStands(j))), axis: seat.axis };
}

export const sideRoom: Rule = {
  id: 'side-room',
  why: 'A bolt that looks to a side is turned from there: without room no socket goes on, and no torque wrench.',
  find: (facts, words) =>
    facts.joints.flatMap((j): readonly Unsigned[] => {
      if (!j.mount || looksDown(j.mount) || !j.head.tool) return [];
      const head = headEnd(facts, j);
      if (!head) return [];
      // what goes up after it is tight is not in its way
      const there = coveredLater(j, facts.panels)
        ? facts.panels.filter(p => isBracket(p.panel) || j.joint.panels.includes(p.panel.id))
        : facts.panels;
      const room = roomBefore(
        facts.rig,
        there,
        head.at,
        head.axis,
        WIDE * (j.head.flats ?? j.head.bearing),
        SOCKET,
      );
      if (!room) return [];
      const { kind, id } = room.with;
      const what =
        kind === 'plate'
          ? plateWord(facts, id)
          : kind === 'member'
            ? `the ${memberName(facts.rig, id)}`
            : partName(facts, id);
      const none = room.mm < WRENCH;
      return [
        {
          severity: none ? 'fix' : 'note',
          where: 'bolt',
          about: [j.id, id],
          text: `bolt ${j.id} looks to a side and has ${words.tape(room.mm)} before its head, up to ${what}; a socket wants ${words.tape(SOCKET)}${none ? ', a box wrench '.concat(words.tape(WRENCH)) : ''}.`,
          remedy: none
            ? 'Choose another hole, or a bracket from the other side of the member.'
            : 'Turn it with a box wrench; torque it with a crowfoot adapter, square to the torque wrench.',
        },
      ];
    }),
};
