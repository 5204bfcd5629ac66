import { selfCrossing, signedArea } from '../geometry';
import type { Fault } from './faults';
import type { Flange, PlanDocument } from './plan';
import { surveyFaults } from './survey-schema';

/** A plate lies flatter than this, degrees. */
const STEEPEST = 80;

/** Faults that no single key shows: doubled ids, names of things that do not exist, outlines that cross. `before`: a document without any. */
export function crossFaults(doc: PlanDocument, before?: PlanDocument): Fault[] {
  const { rig, plan } = doc;
  const faults: Fault[] = [];
  const say = (path: string, fault: string): void => void faults.push({ path, fault });

  const unique = (path: string, items: readonly { readonly id: string }[]): Set<string> => {
    const seen = new Set<string>();
    items.forEach((x, i) => {
      if (seen.has(x.id)) say(`${path}[${i}].id`, `is "${x.id}", which an earlier entry already has`);
      seen.add(x.id);
    });
    return seen;
  };
  const known = (path: string, value: string | undefined, set: ReadonlySet<string>, what: string): void => {
    if (value !== undefined && !set.has(value)) say(path, `names ${what} "${value}", which does not exist`);
  };
  // outlines that were sound before, by the objects that they are
  const were = new Set<unknown>(
    before
      ? [
          ...before.plan.panels.map(p => p.base.outline),
          ...before.rig.components.map(c => c.footprint),
          ...before.rig.members.map(m => m.footprint),
        ]
      : [],
  );
  const sound = (path: string, outline: readonly (readonly [number, number])[]): void => {
    if (were.has(outline)) return;
    const cross = selfCrossing(outline);
    if (cross) say(path, `crosses itself: edge ${cross[0]} meets edge ${cross[1]}`);
    else if (Math.abs(signedArea(outline)) < 1) say(path, 'encloses no area');
  };

  const direction = (path: string, n: readonly number[] | undefined): void => {
    if (n && Math.hypot(...n) < 1e-6) say(path, 'has no length: it points nowhere');
  };

  const options = unique('rig.options', rig.options);
  const components = unique('rig.components', rig.components);
  const members = unique('rig.members', rig.members);
  const mounts = unique('rig.mounts', rig.mounts);
  const bars = unique('plan.crossbars', plan.crossbars);
  (plan.holes ?? []).forEach((h, i) => {
    const path = `plan.holes[${i}]`;
    if (mounts.has(h.id)) say(`${path}.id`, `is "${h.id}", which an earlier entry already has`);
    mounts.add(h.id);
    if (!members.has(h.member) && !bars.has(h.member))
      say(`${path}.member`, `names member or crossbar "${h.member}", which does not exist`);
    known(`${path}.behind.component`, h.behind?.component, components, 'component');
    direction(`${path}.normal`, h.normal);
  });
  const factory = unique('rig.factoryParts', rig.factoryParts);
  plan.crossbars.forEach((c, i) => {
    if (c.replaces !== undefined) known(`plan.crossbars[${i}].replaces`, c.replaces, factory, 'factory part');
    if (members.has(c.id)) say(`plan.crossbars[${i}].id`, `is "${c.id}", which a member already has`);
    if (Math.hypot(c.to[0] - c.from[0], c.to[1] - c.from[1]) < 1)
      say(`plan.crossbars[${i}].to`, 'lies over its other end: the bar has no length');
  });
  const points = unique('rig.servicePoints', rig.servicePoints);
  rig.factoryParts.forEach((f, i) => {
    if (f.carries !== undefined) known(`rig.factoryParts[${i}].carries`, f.carries, components, 'component');
  });
  for (const [option, choice] of Object.entries(rig.selected)) {
    const found = rig.options.find(o => o.id === option);
    if (!found) say(`rig.selected.${option}`, 'names an option that does not exist');
    else if (!found.choices.some(c => c.id === choice))
      say(
        `rig.selected.${option}`,
        `is "${choice}", but ${found.name} offers ${found.choices.map(c => c.id).join(', ')}`,
      );
  }
  for (const key of ['components', 'mounts', 'servicePoints', 'factoryParts'] as const)
    rig[key].forEach((x, i) => {
      for (const option of Object.keys(x.when ?? {}))
        known(`rig.${key}[${i}].when`, option, options, 'option');
    });
  rig.components.forEach((c, i) => {
    sound(`rig.components[${i}].footprint`, c.footprint);
    if (c.zTop <= c.zBottom) say(`rig.components[${i}].zTop`, `is ${c.zTop}, not above zBottom ${c.zBottom}`);
  });
  rig.members.forEach((m, i) => {
    sound(`rig.members[${i}].footprint`, m.footprint);
    if (m.zTop <= m.zBottom) say(`rig.members[${i}].zTop`, `is ${m.zTop}, not above zBottom ${m.zBottom}`);
  });
  rig.mounts.forEach((m, i) => {
    known(`rig.mounts[${i}].member`, m.member, members, 'member');
    known(`rig.mounts[${i}].behind.component`, m.behind?.component, components, 'component');
    known(`rig.mounts[${i}].carries`, m.carries, components, 'component');
    direction(`rig.mounts[${i}].normal`, m.normal);
  });
  if (rig.survey)
    surveyFaults(rig.survey, 'rig.survey', say, {
      mounts: new Set(rig.mounts.map(m => m.id)),
      corners: new Map(rig.components.map(c => [c.id, c.footprint.length])),
    });
  rig.servicePoints.forEach((s, i) => {
    known(`rig.servicePoints[${i}].component`, s.component, components, 'component');
  });

  if (plan.rigId !== rig.id) say('plan.rigId', `is "${plan.rigId}", but the rig in this file is "${rig.id}"`);
  const panels = unique('plan.panels', plan.panels);
  const builds = unique('plan.builds', plan.builds);
  unique('plan.joints', plan.joints);
  plan.panels.forEach((p, i) => {
    const path = `plan.panels[${i}]`;
    sound(`${path}.base.outline`, p.base.outline);
    unique(`${path}.openings`, p.openings);
    const ids = new Set<string>();
    const walk = (f: Flange, at: string, onBase: boolean): void => {
      if (ids.has(f.id)) say(`${at}.id`, `is "${f.id}", which another flange of this panel already has`);
      ids.add(f.id);
      if (onBase !== (f.edge !== 'far'))
        say(
          `${at}.edge`,
          onBase ? 'must be the index of a base edge' : 'must be "far" on a flange of a flange',
        );
      else if (typeof f.edge === 'number' && f.edge >= p.base.outline.length)
        say(`${at}.edge`, `is ${f.edge}, but the outline has edges 0 to ${p.base.outline.length - 1}`);
      (f.flanges ?? []).forEach((g, k) => walk(g, `${at}.flanges[${k}]`, false));
    };
    p.flanges.forEach((f, k) => walk(f, `${path}.flanges[${k}]`, true));
    p.guards.forEach((g, k) => known(`${path}.guards[${k}]`, g, components, 'component'));
    known(`${path}.pairOf`, p.pairOf, panels, 'panel');
    if (p.pairOf === p.id) say(`${path}.pairOf`, 'is itself');
    else if (p.pairOf !== undefined && plan.panels.find(q => q.id === p.pairOf)?.pairOf !== undefined)
      say(`${path}.pairOf`, 'is a twin itself: a pair has one original');
    // a plate lies; only a bracket may stand upright
    if (p.role !== 'bracket')
      for (const turn of ['pitch', 'roll'] as const)
        if (Math.abs(p.base[turn]) > STEEPEST)
          say(
            `${path}.base.${turn}`,
            `is ${p.base[turn]}, but a plate's goes from -${STEEPEST} to ${STEEPEST}`,
          );
    p.openings.forEach((o, k) => known(`${path}.openings[${k}].serves`, o.serves, points, 'service point'));
  });
  plan.joints.forEach((j, i) => {
    const path = `plan.joints[${i}]`;
    known(`${path}.mount`, j.mount, mounts, 'mount');
    if (!j.mount && !j.at) say(path, 'has neither a mount nor a place (at)');
    j.panels.forEach((p, k) => known(`${path}.panels[${k}]`, p, panels, 'panel'));
    for (const p of Object.keys(j.slots ?? {})) known(`${path}.slots.${p}`, p, panels, 'panel');
    direction(`${path}.normal`, j.normal);
    if (j.threadIn !== undefined && !j.panels.includes(j.threadIn))
      say(`${path}.threadIn`, `is "${j.threadIn}", which is none of the joint's panels`);
  });
  plan.crossbars.forEach((c, i) =>
    c.mounts.forEach((m, k) => known(`plan.crossbars[${i}].mounts[${k}]`, m, mounts, 'mount')),
  );
  const fitted = new Map<string, string>();
  unique('plan.phases', plan.phases ?? []);
  (plan.phases ?? []).forEach((phase, i) =>
    phase.panels.forEach((p, k) => {
      const path = `plan.phases[${i}].panels[${k}]`;
      known(path, p, panels, 'panel');
      const other = fitted.get(p);
      if (other !== undefined) say(path, `is "${p}", which phase "${other}" fits already`);
      fitted.set(p, phase.name);
    }),
  );
  plan.seams.forEach((s, i) => {
    known(`plan.seams[${i}].front`, s.front, panels, 'panel');
    known(`plan.seams[${i}].rear`, s.rear, panels, 'panel');
    if (s.outside !== s.front && s.outside !== s.rear)
      say(`plan.seams[${i}].outside`, `is "${s.outside}", but must be "${s.front}" or "${s.rear}"`);
  });
  plan.builds.forEach((b, i) => {
    for (const key of Object.keys(b.sheets)) known(`plan.builds[${i}].sheets.${key}`, key, panels, 'panel');
    for (const p of plan.panels)
      if (!b.sheets[p.id] && !p.sheet) say(`plan.builds[${i}].sheets`, `has no sheet for panel "${p.id}"`);
  });
  known('plan.activeBuild', plan.activeBuild, builds, 'build');
  return faults;
}
