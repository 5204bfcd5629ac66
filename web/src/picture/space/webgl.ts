let known: boolean | undefined;

/** Whether this browser draws in space; found out once. */
export function hasWebGl(): boolean {
  if (known === undefined) {
    try {
      const canvas = document.createElement('canvas');
      known = canvas.getContext('webgl2') !== null;
    } catch {
      known = false;
    }
  }
  return known;
}
