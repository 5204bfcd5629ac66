import * as yup from 'yup';
import { id, list, num, number, positive } from './fields';

/** Heights along one side of a scan's grid. */
const side = () => positive().integer().max(20_000);
const three = () => yup.tuple([number(), number(), number()]).required();

export const scanSchema = yup.object({
  id: id(),
  name: yup.string().defined(),
  from: yup.tuple([number(), number()]).required(),
  step: positive(),
  width: side(),
  height: side(),
  pairs: list(yup.object({ point: id(), at: three(), off: num().min(0).defined() })),
  mmPerUnit: positive(),
});
