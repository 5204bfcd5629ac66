import {
  hardwareList,
  jointCapacity,
  type ResolvedJoint,
  stackFaults,
  toolList,
  toolName,
  toolsFor,
} from '@plate-fold/core/bolt';
import { check } from '@plate-fold/core/checks';
import { type Facts, weighAll } from '@plate-fold/core/derive';
import { bendDeduction, brakeOrder, type FoldedPanel, shopOf } from '@plate-fold/core/fold';
import type { Vec2 } from '@plate-fold/core/geometry';
import type { PlanDocument } from '@plate-fold/core/plan';
import { type ScanGap, scanGap, scanGapStruck } from '@plate-fold/core/scan';
import { phaseSequence, stepTorque } from '@plate-fold/core/sequence';
import { serviceList } from '@plate-fold/core/service';
import { type StrikeAnswer, strikeForce, strikePlate, wishOf } from '@plate-fold/core/strike';
import {
  fixed,
  formatAngle,
  formatLength,
  formatMass,
  formatPercent,
  formatTorque,
  loadFigure,
  stressFigure,
  type UnitSystem,
} from '@plate-fold/core/units';
import { rows, said, type Verb } from './answer';
import { fitupVerb } from './fitup';

const checkVerb: Verb = (facts, units) => {
  const findings = check(facts, units).map(({ mend: _, where: __, ...f }) => f);
  const text =
    findings.length === 0
      ? 'No findings.'
      : findings.map(f => `${f.severity}  ${f.text}${f.remedy ? ` ${f.remedy}` : ''}`).join('\n');
  return { json: { findings }, text, code: findings.some(f => f.severity === 'stop') ? 1 : 0 };
};

/** What a scan shows over a plate, as it prints. */
const scanned = (
  gap: ScanGap | undefined,
): { readonly scanGapMm: number | null; readonly scanAt: Vec2 | null } => ({
  scanGapMm: gap?.gapMm ?? null,
  scanAt: gap?.at ?? null,
});
const scannedRow = (gap: ScanGap | undefined, units: UnitSystem): readonly string[] =>
  gap
    ? [
        formatLength(gap.gapMm, units, true),
        `${formatLength(gap.at[0], units)} behind the front axle, ${formatLength(Math.abs(gap.at[1]), units)} ${gap.at[1] < 0 ? 'left' : 'right'}`,
      ]
    : ['–', 'nothing over it'];

const coverVerb: Verb = ({ coverage, lowest, angles, plates, rig }, units, { heights } = {}) => {
  const gaps = heights && plates.map(p => ({ panel: p.panel, gap: scanGap(heights, p, rig.members) }));
  return {
    json: {
      components: coverage.components.map(({ bare: _, ...c }) => c),
      fraction: coverage.fraction,
      fromAheadFraction: coverage.fromAheadFraction,
      lowestPoint: lowest,
      approachDeg: angles.approachDeg,
      breakoverDeg: angles.breakoverDeg,
      departureDeg: angles.departureDeg,
      ...(gaps ? { scan: gaps.map(g => ({ id: g.panel.id, ...scanned(g.gap) })) } : {}),
    },
    text: [
      rows([
        ['part', 'from below', 'from ahead'],
        ...coverage.components.map(c => [
          c.id,
          formatPercent(c.fraction),
          formatPercent(c.fromAheadFraction),
        ]),
        ['all', formatPercent(coverage.fraction), formatPercent(coverage.fromAheadFraction)],
      ]),
      `lowest point ${formatLength(lowest.z, units)}${lowest.panel ? ` (${lowest.panel})` : ''}`,
      `approach ${formatAngle(angles.approachDeg)}, breakover ${formatAngle(angles.breakoverDeg)}, departure ${formatAngle(angles.departureDeg)}`,
      ...(gaps
        ? [
            rows([
              ['plate', 'to the scan', 'at'],
              ...gaps.map(g => [g.panel.mark, ...scannedRow(g.gap, units)]),
            ]),
          ]
        : []),
    ].join('\n'),
    code: 0,
  };
};

const weighVerb: Verb = (facts, units) => {
  const builds = weighAll(facts).map(({ crossbarKg: _, sideKg: __, unsprungKg: ___, ...b }) => b);
  return {
    json: { builds },
    text: rows([
      [
        'build',
        'net',
        'added',
        'removed',
        'front axle',
        'rear axle',
        'nose',
        'tail',
        'cost (invented rates)',
      ],
      ...builds.map(b => [
        b.id,
        formatMass(b.netKg, units),
        formatMass(b.addedKg, units),
        formatMass(b.removedKg, units),
        formatMass(b.axles.frontKg, units),
        formatMass(b.axles.rearKg, units),
        formatLength(b.rideHeight.frontMm, units, true),
        formatLength(b.rideHeight.rearMm, units, true),
        `$ ${fixed(b.cost, 0)}`,
      ]),
    ]),
    code: 0,
  };
};

/** What a joint bears, pulled and sheared, and what of it gives first. */
const bearsOf = (j: ResolvedJoint, panels: readonly FoldedPanel[]) => {
  const { pull, shear } = jointCapacity(j, panels);
  return { pullN: pull.force, pullBy: pull.what, shearN: shear.force, shearBy: shear.what };
};

const boltsVerb: Verb = ({ joints, panels, rig }, units) => ({
  json: {
    joints: joints.map(j => ({
      id: j.id,
      gripMm: j.gripMm,
      lengthMm: j.lengthMm,
      torqueNm: j.torqueNm,
      preloadN: j.preloadN,
      limitedBy: j.limitedBy,
      drill: j.drill,
      tools: toolsFor(j).map(t => toolName(t, units)),
    })),
    shopping: hardwareList(joints).map(({ part, count }) => ({ part, count })),
    tools: toolList(joints, { panels, rig }),
  },
  text: [
    rows([
      ['joint', 'thread', 'grip', 'length', 'torque', 'limited by', 'pulled', 'sheared'],
      ...joints.map(j => [
        j.id,
        j.thread.designation,
        formatLength(j.gripMm, units, true),
        formatLength(j.lengthMm, units),
        formatTorque(j.torqueNm, units),
        j.limitedBy,
        said(loadFigure(bearsOf(j, panels).pullN, units)),
        said(loadFigure(bearsOf(j, panels).shearN, units)),
      ]),
    ]),
    ...joints.flatMap(j => stackFaults(j, units).map(f => `${j.id}: ${f.said}`)),
    '',
    ...hardwareList(joints).map(l => `${String(l.count).padStart(4)}  ${l.part}`),
  ].join('\n'),
  code: 0,
});

const sequenceVerb: Verb = (facts, units, { before } = {}) => {
  const sequence = phaseSequence(before, facts, units);
  return {
    json: {
      steps: sequence.steps.map(s => ({
        id: s.id,
        stage: s.stage,
        title: s.title,
        panels: s.panels,
        joints: s.joints,
        torqueNm: s.torqueNm,
        torques: s.torques,
        pass: s.pass,
        needs: s.needs,
        tools: s.tools.map(t => toolName(t, units)),
        cautions: s.cautions,
      })),
      ...(sequence.cycle.length > 0 ? { cycle: sequence.cycle } : {}),
    },
    text: sequence.steps
      .map((s, i) => {
        const set = stepTorque(s, units);
        const torque = set === '' ? '' : `, ${set}`;
        const bolts = s.joints.length > 0 && s.joints.length < 12 ? ` (${s.joints.join(', ')})` : '';
        return `${String(i + 1).padStart(3)}  ${s.title}${torque}${bolts}`;
      })
      .join('\n'),
    code: sequence.cycle.length > 0 ? 1 : 0,
  };
};

/** The brake's order, and what stands in its way where there is none. */
const orderOf = (p: FoldedPanel, document: PlanDocument) => {
  const { order, blocked, gaveUp } = brakeOrder(p, shopOf(document.plan));
  return blocked.length > 0 ? { order, blocked, ...(gaveUp ? { gaveUp } : {}) } : { order };
};

const foldVerb: Verb = ({ panels, document }, units) => ({
  json: {
    panels: panels.map(p => ({
      id: p.panel.id,
      blankAreaMm2: p.blank.areaMm2,
      blankSize: p.blank.size,
      bends: p.bends.map(b => ({
        id: b.id,
        angle: b.angle,
        insideRadius: b.insideRadius,
        kFactor: b.kFactor,
        allowanceMm: b.allowanceMm,
        // the trade's bend deduction, between outside dimensions, whichever way the fold goes
        deductionMm: bendDeduction(b.angle, b.insideRadius, p.sheet.thickness, b.kFactor),
        // a sheet that is not folded cold has no least radius
        minRadiusMm: Number.isFinite(b.minRadiusMm) ? b.minRadiusMm : null,
        ok: b.ok,
      })),
      ...orderOf(p, document),
    })),
  },
  text: rows([
    ['plate', 'blank', 'bend', 'angle', 'radius', 'K', 'allowance', 'deduction', ''],
    ...panels.flatMap(p => {
      const [w, h] = p.blank.size;
      const size = `${formatLength(w, units, true)} × ${formatLength(h, units, true)}`;
      const { order } = brakeOrder(p, shopOf(document.plan));
      if (order.length === 0) return [[p.panel.mark, size, 'flat']];
      return order.flatMap((id, i) => {
        const b = p.bends.find(x => x.id === id);
        return b
          ? [
              [
                i === 0 ? p.panel.mark : '',
                i === 0 ? size : '',
                b.id,
                formatAngle(b.angle),
                formatLength(b.insideRadius, units, true),
                fixed(b.kFactor, 3),
                formatLength(b.allowanceMm, units, true),
                formatLength(
                  bendDeduction(b.angle, b.insideRadius, p.sheet.thickness, b.kFactor),
                  units,
                  true,
                ),
                b.ok ? '' : 'too tight',
              ],
            ]
          : [];
      });
    }),
  ]),
  code: 0,
});

/** What every plate's strike asks of the brackets it hangs on; nothing where there are none. */
const bracketRows = (
  { panels }: Facts,
  units: UnitSystem,
  struck: readonly StrikeAnswer[],
): readonly string[] => {
  const mark = (id: string): string => panels.find(p => p.panel.id === id)?.panel.mark ?? id;
  const asked = struck.flatMap(v =>
    v.brackets.map(b => [
      mark(b.panel),
      mark(v.panel),
      formatLength(b.riseMm, units, true),
      `${stressFigure(b.vonMisesMPa, units).value} of ${said(stressFigure(b.yieldMPa, units))}`,
    ]),
  );
  return asked.length === 0 ? [] : [rows([['bracket', 'of plate', 'lifted by', 'stress'], ...asked])];
};

/** Every plate struck at its worst place with half the heavier axle set down on it. */
const strikeVerb: Verb = (facts, units, { heights } = {}) => {
  const { plates: panels, document } = facts;
  const over = (v: StrikeAnswer): ScanGap | undefined => {
    const folded = panels.find(p => p.panel.id === v.panel);
    return heights && folded && scanGapStruck(heights, v.picture, folded.sheet.thickness, facts.rig.members);
  };
  const force = strikeForce(document.rig, 'set-down');
  const made = panels.map(folded => ({
    folded,
    answer: strikePlate(wishOf(facts, folded, force), () => performance.now()),
  }));
  const struck = made.map(({ folded, answer: a }) =>
    a.ok
      ? {
          id: folded.panel.id,
          case: 'set-down',
          forceN: a.value.forceN,
          at: a.value.at,
          deflectionMm: a.value.deflectionMm,
          gapMm: a.value.gapMm ?? null,
          gapTo: a.value.gapTo ?? null,
          ...(heights ? scanned(over(a.value)) : {}),
          vonMisesMPa: a.value.vonMisesMPa,
          yieldMPa: a.value.yieldMPa,
          dentForceN: a.value.dentForceN,
          dentMm: a.value.dentMm ?? null,
          dentingN: a.value.dentingN ?? null,
          ringHz: a.value.ringHz,
          shakenShare: a.value.shakenShare ?? null,
          reactionsN: a.value.reactionsN,
          brackets: a.value.brackets,
          nodes: a.value.nodes,
          solveMs: a.value.solveMs,
          reaches: a.value.reaches ?? 1,
          reached: a.value.reached,
          gaveWayAt: a.value.gaveWayAt ?? null,
          leansOn: a.value.leansOn,
          meshError: a.value.meshError,
          theory: a.value.theory,
        }
      : { id: folded.panel.id, case: 'set-down', forceN: force, fault: a.fault },
  );
  return {
    json: { panels: struck },
    text: [
      rows([
        ['plate', 'force', 'deflection', 'clearance', 'to', 'stress', 'dent', 'lowest vibration', 'by'],
        ...made.map(({ folded, answer: a }) => {
          const { mark } = folded.panel;
          if (!a.ok) return [mark, a.fault];
          const v = a.value;
          return [
            mark,
            said(loadFigure(v.forceN * v.reached, units)),
            formatLength(v.deflectionMm, units, true),
            v.gapMm === undefined ? '–' : formatLength(v.gapMm, units, true),
            v.gapTo ?? '–',
            `${stressFigure(v.vonMisesMPa, units).value} of ${said(stressFigure(v.yieldMPa, units))}`,
            v.dentMm === undefined ? 'not found' : formatLength(v.dentMm, units, true),
            `${fixed(v.ringHz, 0)} Hz`,
            [
              v.theory,
              ...(v.reaches === undefined ? [] : [`${fixed(v.reaches * 100, 0)} % of the force reaches it`]),
              ...(v.reached < 1 ? ['collapses beyond that force'] : []),
            ].join('; '),
          ];
        }),
      ]),
      ...bracketRows(
        facts,
        units,
        made.flatMap(m => (m.answer.ok ? [m.answer.value] : [])),
      ),
      ...(heights
        ? [
            rows([
              ['plate', 'to the scan', 'at'],
              ...made.flatMap(({ folded, answer: a }) =>
                a.ok ? [[folded.panel.mark, ...scannedRow(over(a.value), units)]] : [],
              ),
            ]),
          ]
        : []),
      'Estimates, not certificates: welds, fatigue, loose bolts and frame flex are not included.',
    ].join('\n'),
    code: 0,
  };
};

/** The way to every service point, and what it costs in a year. */
const serviceVerb: Verb = ({ document, rig, panels, joints }) => {
  const lines = serviceList({ doc: document, panels, joints }, rig);
  return {
    json: {
      points: lines.map(l => ({
        id: l.point.id,
        through: l.through,
        ...(l.openingId === undefined ? {} : { openingId: l.openingId }),
        drop: l.drop,
        loosen: l.loosen,
        remove: l.remove,
        minutes: l.minutes,
      })),
    },
    text: [
      rows([
        ['point', 'through', 'down', 'bolts out', 'loosened', 'minutes (estimate)', 'a year'],
        ...lines.map(l => [
          l.point.name,
          l.through === 'opening' ? (l.openingId ?? 'nothing in the way') : 'drop',
          l.drop.join(', ') || '–',
          String(l.remove.length),
          String(l.loosen.length),
          fixed(l.minutes, 1),
          l.yearlyMinutes === undefined ? '–' : fixed(l.yearlyMinutes, 0),
        ]),
      ]),
    ].join('\n'),
    code: 0,
  };
};

export const VERBS: Readonly<Record<string, Verb>> = {
  check: checkVerb,
  cover: coverVerb,
  weigh: weighVerb,
  bolts: boltsVerb,
  fitup: fitupVerb,
  fold: foldVerb,
  strike: strikeVerb,
  sequence: sequenceVerb,
  service: serviceVerb,
};
