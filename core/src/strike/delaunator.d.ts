/** The package carries its types apart; only what is used is named here. */
declare module 'delaunator' {
  export default class Delaunator {
    constructor(coordinates: ArrayLike<number>);
    readonly triangles: Uint32Array;
    readonly halfedges: Int32Array;
  }
}
