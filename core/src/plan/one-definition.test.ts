import { describe, expect, it } from 'vitest';
import type {
  Component,
  FactoryPart,
  Member,
  Mount,
  PhotoMark,
  Rig,
  RigOption,
  RigScan,
  ScanPair,
  ServicePoint,
  Survey,
  SurveyDistance,
  SurveyHeight,
  SurveyOffset,
  SurveyPhoto,
  SurveyPoint,
} from '../rig';
import {
  type Build,
  type Crossbar,
  type Flange,
  type Joint,
  jsonSchema,
  type Limits,
  type Method,
  type Money,
  type Opening,
  type Panel,
  type Phase,
  type Plan,
  type PlanDocument,
  type Seam,
  type SheetChoice,
  type Shop,
  type TestedK,
  type Upkeep,
} from './index';

/*
 * The types of a document and its schema are two texts of one thing. Here the compiler holds a list of keys to the type, needed and
 * optional apart, and the test holds the schema to the same list: a key that one of the two has alone, or has otherwise, fails.
 */
type Optional<T> = { [K in keyof T]-?: undefined extends T[K] ? K : never }[keyof T];
type Needed<T> = Exclude<keyof T, Optional<T>>;
type Exactly<K extends PropertyKey, G> = Record<K, 1> & Record<Exclude<keyof G, K>, never>;
/** The keys of a type: each once, none more. */
const keysOf =
  <T>() =>
  <const R extends Record<Needed<T> & string, 1>, const O extends Record<Optional<T> & string, 1>>(
    needed: R & Exactly<Needed<T> & string, R>,
    optional: O & Exactly<Optional<T> & string, O>,
  ) => ({ needed: Object.keys(needed).sort(), optional: Object.keys(optional).sort() });

interface Described {
  readonly $ref?: string;
  readonly $defs?: Readonly<Record<string, Described>>;
  readonly properties?: Readonly<Record<string, Described>>;
  readonly required?: readonly string[];
  readonly items?: Described;
  readonly additionalProperties?: Described;
}
const whole = jsonSchema() as Described;
/** What the schema says of a place: `plan.panels[].base`; `{}` for the values of a record. */
function at(path: string): Described {
  return path
    .split('.')
    .filter(Boolean)
    .reduce((d: Described, step) => {
      const [, name = '', tail = ''] = /^(\w+)(.*)$/.exec(step) ?? [];
      const own = d.properties?.[name];
      const of = tail === '[]' ? own?.items : tail === '{}' ? own?.additionalProperties : own;
      if (!of) throw new Error(`the schema has nothing at ${path}: ${step}`);
      const named = of.$ref?.split('/').at(-1);
      return (named === undefined ? of : whole.$defs?.[named]) ?? of;
    }, whole);
}

const SAME: readonly (readonly [string, { needed: readonly string[]; optional: readonly string[] }])[] = [
  ['', keysOf<PlanDocument>()({ format: 1, rig: 1, plan: 1 }, {})],
  [
    'rig',
    keysOf<Rig>()(
      {
        id: 1,
        name: 1,
        body: 1,
        driverSide: 1,
        wheelbase: 1,
        tyreRadius: 1,
        trackWidth: 1,
        frontOverhang: 1,
        rearOverhang: 1,
        axles: 1,
        options: 1,
        selected: 1,
        components: 1,
        members: 1,
        mounts: 1,
        servicePoints: 1,
        factoryParts: 1,
      },
      { measures: 1, measured: 1, misfits: 1, scan: 1, survey: 1 },
    ),
  ],
  ['rig.options[]', keysOf<RigOption>()({ id: 1, name: 1, choices: 1 }, {})],
  [
    'rig.components[]',
    keysOf<Component>()(
      { id: 1, kind: 1, name: 1, footprint: 1, zBottom: 1, zTop: 1, protect: 1, keepOut: 1 },
      { surfaceC: 1, litres: 1, highVoltage: 1, moves: 1, when: 1 },
    ),
  ],
  [
    'rig.members[]',
    keysOf<Member>()({ id: 1, kind: 1, footprint: 1, zBottom: 1, zTop: 1, wall: 1 }, { name: 1, moves: 1 }),
  ],
  [
    'rig.mounts[]',
    keysOf<Mount>()(
      { id: 1, member: 1, at: 1, hole: 1, condition: 1, nutReach: 1 },
      { normal: 1, sigma: 1, behind: 1, carries: 1, when: 1 },
    ),
  ],
  [
    'rig.scan',
    keysOf<RigScan>()({ id: 1, name: 1, from: 1, step: 1, width: 1, height: 1, pairs: 1, mmPerUnit: 1 }, {}),
  ],
  ['rig.scan.pairs[]', keysOf<ScanPair>()({ point: 1, at: 1, off: 1 }, {})],
  ['rig.survey', keysOf<Survey>()({}, { points: 1, distances: 1, heights: 1, offsets: 1, photos: 1 })],
  [
    'rig.survey.points[]',
    keysOf<SurveyPoint>()({ id: 1 }, { name: 1, at: 1, mount: 1, corner: 1, sigma: 1 }),
  ],
  ['rig.survey.distances[]', keysOf<SurveyDistance>()({ from: 1, to: 1, mm: 1 }, { id: 1, sigma: 1 })],
  ['rig.survey.heights[]', keysOf<SurveyHeight>()({ point: 1, mm: 1 }, { id: 1, sigma: 1 })],
  ['rig.survey.offsets[]', keysOf<SurveyOffset>()({ point: 1, axis: 1, mm: 1 }, { id: 1, sigma: 1 })],
  [
    'rig.survey.photos[]',
    keysOf<SurveyPhoto>()({ id: 1, name: 1, width: 1, height: 1, marks: 1 }, { focalPx: 1 }),
  ],
  ['rig.survey.photos[].marks[]', keysOf<PhotoMark>()({ point: 1, px: 1 }, { sigma: 1 })],
  [
    'rig.mounts[].hole',
    keysOf<Mount['hole']>()({ kind: 1 }, { thread: 1, diameter: 1, length: 1, along: 1 }),
  ],
  [
    'rig.servicePoints[]',
    keysOf<ServicePoint>()(
      { id: 1, kind: 1, name: 1, at: 1, opening: 1, component: 1 },
      { everyKm: 1, litres: 1, when: 1 },
    ),
  ],
  [
    'rig.factoryParts[]',
    keysOf<FactoryPart>()(
      { id: 1, name: 1, massKg: 1, at: 1, fasteners: 1, reuseFasteners: 1 },
      { when: 1, carries: 1, section: 1 },
    ),
  ],
  [
    'plan',
    keysOf<Plan>()(
      {
        id: 1,
        name: 1,
        rigId: 1,
        panels: 1,
        crossbars: 1,
        joints: 1,
        seams: 1,
        builds: 1,
        activeBuild: 1,
        method: 1,
        limits: 1,
      },
      {
        notes: 1,
        holes: 1,
        shop: 1,
        rates: 1,
        money: 1,
        priorities: 1,
        fenders: 1,
        minutes: 1,
        upkeep: 1,
        environment: 1,
        phases: 1,
      },
    ),
  ],
  [
    'plan.panels[]',
    keysOf<Panel>()(
      { id: 1, mark: 1, name: 1, base: 1, flanges: 1, openings: 1, guards: 1 },
      { meantFor: 1, grain: 1, role: 1, sheet: 1, pairOf: 1, wayUp: 1 },
    ),
  ],
  ['plan.panels[].base', keysOf<Panel['base']>()({ origin: 1, pitch: 1, roll: 1, outline: 1 }, { yaw: 1 })],
  [
    'plan.panels[].flanges[]',
    keysOf<Flange>()(
      { id: 1, edge: 1, length: 1, angle: 1 },
      { insideRadius: 1, inset: 1, mitre: 1, flanges: 1 },
    ),
  ],
  [
    'plan.panels[].openings[]',
    keysOf<Opening>()({ id: 1, kind: 1, at: 1, shape: 1 }, { openFraction: 1, serves: 1 }),
  ],
  [
    'plan.crossbars[]',
    keysOf<Crossbar>()(
      { id: 1, name: 1, from: 1, to: 1, section: 1, material: 1, mounts: 1 },
      { replaces: 1 },
    ),
  ],
  [
    'plan.joints[]',
    keysOf<Joint>()(
      {
        id: 1,
        panels: 1,
        fastener: 1,
        nut: 1,
        washers: 1,
        spacer: 1,
        headSide: 1,
        lube: 1,
        torque: 1,
      },
      {
        mount: 1,
        at: 1,
        spacerOf: 1,
        tightenBefore: 1,
        tamper: 1,
        lock: 1,
        fit: 1,
        slots: 1,
        cut: 1,
        normal: 1,
        threadIn: 1,
      },
    ),
  ],
  [
    'plan.joints[].fastener',
    keysOf<Joint['fastener']>()({ head: 1, thread: 1, class: 1, length: 1, finish: 1 }, {}),
  ],
  ['plan.phases[]', keysOf<Phase>()({ id: 1, name: 1, panels: 1 }, {})],
  ['plan.seams[]', keysOf<Seam>()({ front: 1, rear: 1, overlap: 1, outside: 1 }, {})],
  ['plan.builds[]', keysOf<Build>()({ id: 1, name: 1, sheets: 1 }, { note: 1, offer: 1 })],
  ['plan.builds[].sheets{}', keysOf<SheetChoice>()({ material: 1, thickness: 1, finish: 1 }, { gauge: 1 })],
  ['plan.method', keysOf<Method>()({ start: 1, drilling: 1, lift: 1, people: 1, drive: 1 }, {})],
  [
    'plan.limits',
    keysOf<Limits>()(
      {},
      {
        maxLiftKg: 1,
        budget: 1,
        maxTotalKg: 1,
        minClearance: 1,
        aheadDegrees: 1,
        maxDent: 1,
        minGap: 1,
        minRing: 1,
        least: 1,
        maxSheets: 1,
        materials: 1,
      },
    ),
  ],
  [
    'plan.shop',
    keysOf<Shop>()({ id: 1, name: 1, brake: 1, dies: 1, sheets: 1 }, { cutter: 1, kFactors: 1, tools: 1 }),
  ],
  ['plan.shop.kFactors[]', keysOf<TestedK>()({ material: 1, ratio: 1, k: 1 }, {})],
  ['plan.money', keysOf<Money>()({}, { shipping: 1, taxPercent: 1, repair: 1, deductible: 1 })],
  [
    'plan.upkeep',
    keysOf<Upkeep>()({}, { kmPerYear: 1, retorqueKm: 1, retorqueDays: 1, inspectKm: 1, inspectDays: 1 }),
  ],
];

describe('the schema of a document and its types', () => {
  it.each(SAME)('have the same keys, needed and optional, at "%s"', (path, { needed, optional }) => {
    const { properties = {}, required = [] } = at(path);
    expect([...required].sort()).toEqual(needed);
    expect(
      Object.keys(properties)
        .filter(k => !required.includes(k))
        .sort(),
    ).toEqual(optional);
  });
});
