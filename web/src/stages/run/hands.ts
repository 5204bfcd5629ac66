const WHO = 'plate-fold who';

/** Whose hands this device is in, as entered on it. */
export function whoseHands(): string {
  try {
    return localStorage.getItem(WHO) ?? '';
  } catch {
    return '';
  }
}

export function keepHands(name: string): void {
  try {
    localStorage.setItem(WHO, name);
  } catch {
    // a full store costs the name, not the record
  }
}
