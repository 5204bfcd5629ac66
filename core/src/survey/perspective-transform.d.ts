/** A perspective transformation through four pairs of places: an independent check, used by tests alone. */
declare module 'perspective-transform' {
  export default function perspectiveTransform(
    from: readonly number[],
    to: readonly number[],
  ): { readonly transform: (x: number, y: number) => readonly number[] };
}
