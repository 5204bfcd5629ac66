/** The part of the packer that is used; its main file is not one that Node can read, its module file is. */
declare module 'maxrects-packer/dist/maxrects-packer.mjs' {
  export class Rectangle {
    constructor(width: number, height: number);
    x: number;
    y: number;
    width: number;
    height: number;
    rot: boolean;
    data: unknown;
  }
  export class MaxRectsPacker {
    constructor(
      width: number,
      height: number,
      padding: number,
      options: {
        readonly smart: boolean;
        readonly pot: boolean;
        readonly square: boolean;
        readonly allowRotation: boolean;
        readonly border: number;
      },
    );
    readonly bins: readonly {
      readonly rects: readonly Rectangle[];
      readonly freeRects?: readonly Rectangle[];
    }[];
    addArray(rects: readonly Rectangle[]): void;
  }
}
