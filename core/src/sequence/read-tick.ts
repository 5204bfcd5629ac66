import * as yup from 'yup';
import { ADDRESSABLE, checked } from '../plan';
import { NM_PER_LBF_FT } from '../units';
import { FAULT_IDS } from './fault-kinds';
import { MOST_TORQUE, type Tick } from './tick';

/** Characters of an id that a device makes. */
const MOST_ID = 200;
/** The year 2100, ms: no clock is set beyond it. */
export const LATEST_TIME = 4_102_444_800_000;

/** Said to whoever typed it, in both units: a device's own are not known here. */
const OFF_SCALE = `the torque reading is not between 0 and ${MOST_TORQUE} N·m (${Math.round(MOST_TORQUE / NM_PER_LBF_FT)} lbf·ft).`;

const tickSchema = yup.object({
  id: yup.string().required().max(MOST_ID).matches(ADDRESSABLE, 'id has / \\ ? # % or a line break in it'),
  stepId: yup.string().required().max(160),
  jointId: yup.string().nullable().max(120),
  kind: yup
    .string()
    .oneOf(['done', 'undone', 'deviation', 'override', 'claim', 'dismissed'] as const)
    .required(),
  torqueNm: yup.number().nullable().min(0).max(MOST_TORQUE),
  note: yup.string().nullable().max(2000),
  fault: yup
    .string()
    .nullable()
    .oneOf([...FAULT_IDS, null]),
  values: yup
    .object()
    .nullable()
    .test(
      'figures',
      'values must be up to 12 figures',
      v =>
        v === null ||
        v === undefined ||
        (Object.keys(v).length <= 12 &&
          Object.entries(v).every(
            ([k, x]) => k.length <= 24 && typeof x === 'number' && Number.isFinite(x) && Math.abs(x) <= 1e7,
          )),
    ),
  who: yup.string().nullable().max(80),
  wrench: yup.string().nullable().max(80),
  photo: yup.string().nullable().max(64),
  at: yup.number().required().integer().min(0).max(LATEST_TIME),
  device: yup.string().required().max(64),
});

/** Reads a tick from outside. The fault says what is wrong with it. */
export function readTick(
  value: unknown,
): { readonly ok: true; readonly tick: Tick } | { readonly ok: false; readonly fault: string } {
  const nm = (value as { torqueNm?: unknown } | null)?.torqueNm;
  if (typeof nm === 'number' && !(nm >= 0 && nm <= MOST_TORQUE)) return { ok: false, fault: OFF_SCALE };
  const read = checked(tickSchema, value, 'a tick');
  return read.ok ? { ok: true, tick: read.value as unknown as Tick } : read;
}
