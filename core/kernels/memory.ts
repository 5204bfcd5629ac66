/** The number at a place of a row of numbers. */
// @ts-ignore: decorator
@inline
export function at(p: usize, i: i32): f64 {
  return load<f64>(p + ((<usize>i) << 3));
}

/** Puts a number at a place of a row of numbers. */
// @ts-ignore: decorator
@inline
export function put(p: usize, i: i32, v: f64): void {
  store<f64>(p + ((<usize>i) << 3), v);
}

/** The whole number at a place of a row of whole numbers. */
// @ts-ignore: decorator
@inline
export function index(p: usize, i: i32): i32 {
  return load<i32>(p + ((<usize>i) << 2));
}

/** Two numbers side by side. */
// @ts-ignore: decorator
@inline
export function pair(p: usize, i: i32): v128 {
  return v128.load(p + ((<usize>i) << 3));
}

/** Puts two numbers side by side. */
// @ts-ignore: decorator
@inline
export function putPair(p: usize, i: i32, v: v128): void {
  v128.store(p + ((<usize>i) << 3), v);
}

/** One number twice. */
// @ts-ignore: decorator
@inline
export function both(p: usize, i: i32): v128 {
  return v128.load_splat<f64>(p + ((<usize>i) << 3));
}

/** s + a·b, side by side. */
// @ts-ignore: decorator
@inline
export function more(s: v128, a: v128, b: v128): v128 {
  return f64x2.add(s, f64x2.mul(a, b));
}

/** s − a·b, side by side. */
// @ts-ignore: decorator
@inline
export function less(s: v128, a: v128, b: v128): v128 {
  return f64x2.sub(s, f64x2.mul(a, b));
}

/** The sum of two numbers side by side. */
// @ts-ignore: decorator
@inline
export function sum(v: v128): f64 {
  return f64x2.extract_lane(v, 0) + f64x2.extract_lane(v, 1);
}
