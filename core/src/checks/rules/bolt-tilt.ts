import { callOf, changeJoints } from '../../plan';
import { fixed } from '../../units';
import { plateWord, type Rule, type Unsigned } from '../finding';

/** Slope under a head that it takes without help: 1 in 20 (RCSC Specification, sec. 2.5). */
export const SEAT_SLOPE = (Math.atan(1 / 20) * 180) / Math.PI;
/** Slope of a beveled washer: 1 in 6 (ASTM F436). */
const BEVEL = (Math.atan(1 / 6) * 180) / Math.PI;

export const boltTilt: Rule = {
  id: 'bolt-tilt',
  why: 'A head on a slope bends its bolt and works loose.',
  find: facts =>
    facts.joints.flatMap(j =>
      (facts.seats.get(j.id)?.plates ?? []).flatMap((s): readonly Unsigned[] => {
        const bevelled = j.joint.washers.includes('tapered');
        const least = bevelled ? BEVEL - SEAT_SLOPE : 0;
        const most = bevelled ? BEVEL + SEAT_SLOPE : SEAT_SLOPE;
        if (s.where === 'beside' || (s.tilt <= most && s.tilt >= least)) return [];
        const helps = !bevelled && s.tilt <= BEVEL + SEAT_SLOPE && s.tilt >= BEVEL - SEAT_SLOPE;
        return [
          {
            severity: 'fix',
            where: 'bolt',
            about: [j.id, s.panel],
            text: `Bolt ${j.id} stands ${fixed(s.tilt, 1)}° off square to ${plateWord(facts, s.panel)}; a head sits flat up to ${fixed(SEAT_SLOPE, 1)}°.`,
            remedy: helps
              ? 'Put a tapered washer under its head.'
              : bevelled && s.tilt < least
                ? 'Leave the tapered washer out.'
                : 'Fold a lip there that lies flat against the member.',
            ...(helps
              ? {
                  mend: callOf(changeJoints, {
                    joints: [{ joint: j.id, part: { washers: ['tapered', ...j.joint.washers] } }],
                  }),
                }
              : bevelled && s.tilt < least
                ? {
                    mend: callOf(changeJoints, {
                      joints: [
                        { joint: j.id, part: { washers: j.joint.washers.filter(w => w !== 'tapered') } },
                      ],
                    }),
                  }
                : {}),
          },
        ];
      }),
    ),
};
