import {
  angleToBendTo,
  type Bend,
  bendingForce,
  dieFor,
  type FoldedPanel,
  kFactor,
  leastFlange,
  longestBend,
  shopOf,
} from '@plate-fold/core/fold';
import { fixed, forceFigure, formatForce, formatLength, lengthFigure } from '@plate-fold/core/units';
import { useFacts } from '../../state/derived';
import { useAppSelector } from '../../state/store';
import { Row } from '../../ui/figure';

/** What a bend asks of the shop's brake: the angle to set, K, the force, and the shortest flange. */
export function BrakeFigures({ folded, bend }: { folded: FoldedPanel; bend: Bend }) {
  const facts = useFacts();
  const units = useAppSelector(s => s.view.units);
  const shop = shopOf(facts.document.plan);
  const { material } = folded;
  const t = folded.sheet.thickness;
  const die = dieFor(t, shop.dies);
  const width = folded.facets.find(f => f.id === bend.id)?.hinge?.width ?? 0;
  const to = angleToBendTo(Math.abs(bend.angle), bend.insideRadius, t, material, die);
  const force = die ? bendingForce(material.ultimate, t, width, die) : undefined;
  const own = Math.abs(bend.kFactor - kFactor(bend.insideRadius, t)) > 1e-9;
  const none = { value: '–', unit: '' };
  return (
    <>
      <Row
        name="Bend to"
        how="bend-to"
        of={{ value: to === undefined ? '–' : fixed(to, 1), unit: '°' }}
        meaning="allows for springback; estimate"
      />
      <Row
        name="K"
        how="k-factor"
        of={{ value: fixed(bend.kFactor, 3), unit: '' }}
        meaning={`at R/t ${fixed(bend.insideRadius / t, 2)}, ${own ? 'from the shop’s own table' : 'DIN 6935'}`}
      />
      <Row
        name="Force"
        how="bend-force"
        of={force === undefined ? none : forceFigure(force, units)}
        meaning={
          force === undefined ? (
            'no die entered'
          ) : force > shop.brake.force ? (
            <b className="text-oxide">
              the brake gives {formatForce(shop.brake.force, units)};{' '}
              {formatLength(longestBend(shop, material.ultimate, t), units)} is the longest
            </b>
          ) : (
            `V ${formatLength(die ?? 0, units)} die; the brake gives ${formatForce(shop.brake.force, units)}`
          )
        }
      />
      <Row
        name="Least flange"
        how="least-flange"
        of={die ? lengthFigure(leastFlange(die), units, true) : none}
        meaning="must rest on both shoulders of that die"
      />
    </>
  );
}
