import * as yup from 'yup';
import {
  BODIES,
  CARRIERS,
  COMPONENT_KINDS,
  HOLE_CONDITIONS,
  HOLE_KINDS,
  MEMBER_KINDS,
  NUT_REACHES,
  SERVICE_KINDS,
} from '../rig';
import {
  id,
  list,
  notNegative,
  num,
  number,
  oneOf,
  outline,
  point3,
  positive,
  record,
  text,
  wordOr,
} from './fields';
import { scanSchema } from './scan-schema';
import { surveySchema } from './survey-schema';

export const when = () =>
  record(list(yup.string().required()), 'must list choice ids').optional().default(undefined);

/** Section of a rectangular bar or tube, mm. */
export const barSection = () =>
  yup.object({ width: positive(), height: positive(), wall: wordOr('solid', num().moreThan(0)) });

export const axle = yup.object({ massKg: positive(), wheelRate: positive() }).required();

export const mount = yup.object({
  id: id(),
  member: id(),
  at: point3(),
  normal: yup.tuple([number(), number(), number()]).optional(),
  hole: yup
    .object({
      kind: oneOf(HOLE_KINDS),
      thread: yup.string(),
      diameter: num().moreThan(0),
      length: num().moreThan(0),
      along: yup.string().oneOf(['x', 'y'] as const),
    })
    .required(),
  condition: oneOf(HOLE_CONDITIONS),
  sigma: yup.tuple([positive(), positive(), positive()]).optional(),
  nutReach: oneOf(NUT_REACHES),
  behind: yup.object({ component: id(), depth: notNegative() }).optional().default(undefined),
  carries: id().optional(),
  when: when(),
});

export const rigSchema = yup
  .object({
    id: id(),
    name: id(),
    body: oneOf(BODIES),
    driverSide: oneOf(['left', 'right']),
    wheelbase: positive(),
    tyreRadius: positive(),
    trackWidth: positive(),
    frontOverhang: notNegative(),
    rearOverhang: notNegative(),
    axles: yup.object({ front: axle, rear: axle }).required(),
    options: list(
      yup.object({ id: id(), name: id(), choices: list(yup.object({ id: id(), name: id() })).min(1) }),
    ),
    selected: record(yup.string().required(), 'must be a choice id'),
    measures: record(number(), 'must be a number').optional().default(undefined),
    measured: yup.array().of(id()).optional(),
    misfits: yup
      .array()
      .of(yup.object({ when: record(list(yup.string().required()), 'must list choice ids'), reason: id() }))
      .optional(),
    survey: surveySchema.optional().default(undefined),
    scan: scanSchema.optional().default(undefined),
    components: list(
      yup.object({
        id: id(),
        kind: oneOf(COMPONENT_KINDS),
        name: id(),
        footprint: outline(),
        zBottom: number(),
        zTop: number(),
        protect: yup.boolean().required(),
        keepOut: notNegative(),
        surfaceC: num(),
        litres: num().moreThan(0).max(2000),
        highVoltage: yup.boolean(),
        moves: yup.boolean(),
        when: when(),
      }),
    ),
    members: list(
      yup.object({
        id: id(),
        kind: oneOf(MEMBER_KINDS),
        name: yup.string(),
        footprint: outline(),
        zBottom: number(),
        zTop: number(),
        wall: positive(),
        moves: yup
          .object({
            with: oneOf(CARRIERS),
            bump: notNegative().max(600),
            droop: notNegative().max(600),
          })
          .optional()
          .default(undefined),
      }),
    ),
    mounts: list(mount),
    servicePoints: list(
      yup.object({
        id: id(),
        kind: oneOf(SERVICE_KINDS),
        name: id(),
        at: point3(),
        opening: notNegative(),
        component: id(),
        everyKm: num().moreThan(0),
        litres: num().moreThan(0).max(200),
        when: when(),
      }),
    ),
    factoryParts: list(
      yup.object({
        id: id(),
        name: id(),
        massKg: notNegative(),
        at: point3(),
        fasteners: list(yup.object({ count: notNegative().integer(), head: id(), thread: text() })),
        reuseFasteners: yup.boolean().required(),
        carries: yup.string(),
        section: barSection().optional().default(undefined),
        when: when(),
      }),
    ),
  })
  .required();
