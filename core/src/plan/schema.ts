import * as yup from 'yup';
import { MATERIAL_IDS } from '../sheet';
import {
  addressable,
  id,
  list,
  notNegative,
  num,
  number,
  oneOf,
  outline,
  point2,
  point3,
  positive,
  record,
  text,
  wordOr,
} from './fields';
import { LIMITS } from './limits';
import {
  CLASSES,
  CUTTER_IDS,
  DRILLINGS,
  DRIVES,
  DUTIES,
  ENVIRONMENTS,
  FASTENER_FINISHES,
  FINISHES,
  FITS,
  FORMAT,
  GRAINS,
  HEAD_SIDES,
  HEADS,
  HOLE_CUTS,
  LIFTS,
  LUBES,
  NUTS,
  OPENING_KINDS,
  PRIORITIES,
  ROLES,
  SPACERS,
  STARTS,
  WASHERS,
} from './plan';
import { barSection, mount, rigSchema } from './rig-schema';

/*
 * The one definition of a plate-fold/1 document. Strict: nothing is cast, so what is read is what was written.
 * Keys that are not named here are kept.
 */

const shape = yup
  .object({
    circle: num().moreThan(0),
    rect: yup.tuple([num().required().moreThan(0), num().required().moreThan(0)]).optional(),
    polygon: yup.array().of(point2()).min(3).optional(),
  })
  .required()
  .test('oneShape', 'must have exactly one of circle, rect or polygon', v => {
    return [v?.circle, v?.rect, v?.polygon].filter(x => x !== undefined).length === 1;
  });

/** A flange tree; `far` is the only edge a flange on a flange can leave. */
const flange: yup.Schema = yup.object({
  id: id(),
  edge: wordOr('far', num().integer().min(0)),
  length: positive(),
  angle: number().min(-180).max(180),
  // a radius that cannot be made is a finding at its bend, not a broken file
  insideRadius: num(),
  inset: yup.tuple([notNegative(), notNegative()]).optional(),
  mitre: yup.boolean(),
  flanges: yup.lazy(v => (v === undefined ? NO_FLANGES : flangesOfFlange())) as never,
});
const NO_FLANGES = yup.mixed().optional();
let onFlange: yup.Schema | undefined;
/** Made once: a schema of its own for every flange would be most of the work. */
function flangesOfFlange(): yup.Schema {
  onFlange ??= list(flange);
  return onFlange;
}

export const sheetSchema = yup.object({
  material: oneOf(MATERIAL_IDS),
  thickness: positive(),
  finish: oneOf(FINISHES),
  gauge: yup.string(),
});

/** No price is above it: what is has lost its decimal point. */
const MOST_DOLLARS = 1e6;
const dollars = () => notNegative().max(MOST_DOLLARS);
const rate = yup.object({ value: dollars(), source: text() }).optional().default(undefined);
const RATE_IDS = [
  ...MATERIAL_IDS.map(m => `sheet ${m}`),
  ...FINISHES.filter(f => f !== 'raw').map(f => `finish ${f}`),
  'cut',
  'bend',
  'fastener kg',
  'fastener',
];
const fender = yup
  .object({ before: num().moreThan(0).max(3000), after: num().moreThan(0).max(3000) })
  .optional()
  .default(undefined);

export const planSchema = yup
  .object({
    id: addressable(),
    name: id(),
    rigId: id(),
    notes: yup.string(),
    panels: list(
      yup.object({
        id: id(),
        mark: id(),
        name: id(),
        base: yup
          .object({
            origin: point3(),
            pitch: number().min(-180).max(180),
            roll: number().min(-180).max(180),
            yaw: num().min(-360).max(360),
            outline: outline(),
          })
          .required(),
        flanges: list(flange),
        openings: list(
          yup.object({
            id: id(),
            kind: oneOf(OPENING_KINDS),
            at: point2(),
            shape,
            serves: yup.string(),
            openFraction: num().min(0).max(1),
          }),
        ),
        guards: list(yup.string().required()),
        grain: yup.string().oneOf(GRAINS),
        meantFor: yup.array().of(oneOf(DUTIES)).optional(),
        role: yup.string().oneOf(ROLES),
        sheet: sheetSchema.optional().default(undefined),
        pairOf: yup.string(),
        wayUp: yup.boolean(),
      }),
    ).max(LIMITS.panels),
    crossbars: list(
      yup.object({
        id: id(),
        name: id(),
        from: point3(),
        to: point3(),
        section: barSection().required(),
        material: oneOf(MATERIAL_IDS),
        mounts: list(yup.string().required()),
        replaces: yup.string(),
      }),
    ),
    holes: yup.array().of(mount).optional(),
    joints: list(
      yup.object({
        id: id(),
        mount: yup.string(),
        at: yup.tuple([number(), number(), number()]).optional(),
        panels: list(yup.string().required()),
        fastener: yup
          .object({
            head: oneOf(HEADS),
            thread: id(),
            class: oneOf(CLASSES),
            length: wordOr('auto', num().moreThan(0)),
            finish: oneOf(FASTENER_FINISHES),
          })
          .required(),
        nut: oneOf(NUTS),
        washers: list(oneOf(WASHERS)),
        spacer: notNegative(),
        spacerOf: yup.string().oneOf(SPACERS),
        headSide: oneOf(HEAD_SIDES),
        lube: oneOf(LUBES),
        torque: wordOr('auto', num().moreThan(0)),
        tightenBefore: yup.string().oneOf(['hang']),
        tamper: yup.boolean(),
        lock: yup.boolean(),
        fit: yup.string().oneOf(FITS),
        slots: record(
          yup.object({ length: positive().max(400), along: number().min(-360).max(360) }),
          'must be a slot',
        )
          .optional()
          .default(undefined),
        cut: yup.string().oneOf(HOLE_CUTS),
        normal: yup.tuple([number(), number(), number()]).optional(),
        threadIn: yup.string(),
      }),
    ),
    seams: list(yup.object({ front: id(), rear: id(), overlap: number(), outside: id() })),
    builds: list(
      yup.object({
        id: addressable(),
        name: id(),
        sheets: record(sheetSchema, 'must be a sheet'),
        note: yup.string(),
        offer: yup.object({ price: dollars(), source: text() }).optional().default(undefined),
      }),
    )
      .min(1)
      .max(LIMITS.builds),
    activeBuild: id(),
    phases: yup
      .array()
      .of(yup.object({ id: id(), name: id(), panels: list(yup.string().required()) }))
      .max(LIMITS.builds)
      .optional(),
    method: yup
      .object({
        start: oneOf(STARTS),
        drilling: oneOf(DRILLINGS),
        lift: oneOf(LIFTS),
        people: num().oneOf([1, 2]).required(),
        drive: oneOf(DRIVES),
      })
      .required(),
    limits: yup
      .object({
        maxLiftKg: num().moreThan(0),
        budget: num().moreThan(0),
        maxTotalKg: num().moreThan(0),
        minClearance: num().min(0),
        aheadDegrees: num().min(3).max(60),
        maxDent: num().min(0),
        minGap: num().min(0),
        minRing: num().min(0),
        maxSheets: num().integer().min(1),
        least: yup
          .object({
            off: yup.boolean(),
            tank: num().min(0).max(50),
            hits: num().min(0).max(50),
            deters: num().min(0).max(50),
          })
          .optional()
          .default(undefined),
        materials: yup.array().of(oneOf(MATERIAL_IDS)).optional(),
      })
      .required(),
    rates: yup
      .object(Object.fromEntries(RATE_IDS.map(r => [r, rate])))
      .optional()
      .default(undefined),
    money: yup
      .object({
        shipping: num().min(0).max(MOST_DOLLARS),
        taxPercent: num().min(0).max(100),
        repair: num().moreThan(0).max(MOST_DOLLARS),
        deductible: num().moreThan(0).max(MOST_DOLLARS),
      })
      .optional()
      .default(undefined),
    priorities: yup.array().of(oneOf(PRIORITIES)).optional(),
    fenders: yup.object({ front: fender, rear: fender }).optional().default(undefined),
    minutes: record(num().moreThan(0).max(1440).required(), 'must be minutes').optional().default(undefined),
    environment: yup.string().oneOf(ENVIRONMENTS),
    upkeep: yup
      .object({
        kmPerYear: num().moreThan(0).max(500_000),
        retorqueKm: num().moreThan(0).max(100_000),
        retorqueDays: num().moreThan(0).max(3650),
        inspectKm: num().moreThan(0).max(500_000),
        inspectDays: num().moreThan(0).max(3650),
      })
      .optional()
      .default(undefined),
    shop: yup
      .object({
        id: id(),
        name: id(),
        brake: yup.object({ length: positive(), force: positive() }).required(),
        cutter: yup.string().oneOf(CUTTER_IDS),
        dies: list(positive()),
        sheets: list(yup.tuple([positive(), positive()]).required()),
        kFactors: yup
          .array()
          .of(yup.object({ material: oneOf(MATERIAL_IDS), ratio: positive(), k: positive().max(0.6) }))
          .optional(),
        tools: yup
          .object({
            punchHeight: positive(),
            punchWidth: positive(),
            dieHeight: positive(),
            beam: positive(),
          })
          .optional()
          .default(undefined),
      })
      .optional()
      .default(undefined),
  })
  .required();

export const documentSchema = yup.object({
  format: yup.string().oneOf([FORMAT]).required(),
  rig: rigSchema,
  plan: planSchema,
});
