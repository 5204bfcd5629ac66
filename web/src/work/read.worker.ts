import { readDxf, tableLaidIn } from '@plate-fold/core/formats';
import type { PlanDocument } from '@plate-fold/core/plan';
import type { RigList } from '@plate-fold/core/rig';
import type { UnitSystem } from '@plate-fold/core/units';

export type ReadWish =
  | { readonly kind: 'dxf'; readonly text: string; readonly perUnit?: number }
  | {
      readonly kind: 'table';
      readonly doc: PlanDocument;
      readonly list: RigList;
      readonly text: string;
      readonly units: UnitSystem;
    };

self.onmessage = ({ data }: MessageEvent<ReadWish>) => {
  self.postMessage(
    data.kind === 'dxf'
      ? readDxf(data.text, data.perUnit)
      : tableLaidIn(data.doc, data.list, data.text, data.units),
  );
};
