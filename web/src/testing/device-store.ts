/** A device's store as a browser has it, which can be full. Its keys are its own, so that `Object.keys` lists them. */
export class DeviceStore {
  [key: string]: unknown;
  #full = false;
  fill(): void {
    this.#full = true;
  }
  getItem(k: string): string | null {
    return (this[k] as string | undefined) ?? null;
  }
  setItem(k: string, v: string): void {
    if (this.#full) throw new Error('quota');
    this[k] = v;
  }
  removeItem(k: string): void {
    delete this[k];
  }
  clear(): void {
    for (const k of Object.keys(this)) delete this[k];
  }
}
