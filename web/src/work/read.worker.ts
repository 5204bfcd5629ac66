import { type PlanDocument, type RigList, readDxf, tableLaidIn, type UnitSystem } from '@plate-fold/core';

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
