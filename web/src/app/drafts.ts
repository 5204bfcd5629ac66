import type { PlanDocument } from '@plate-fold/core';

/** An edit that the server has not acknowledged yet, kept on this device. */
export interface Draft {
  readonly baseRevision: number;
  readonly document: PlanDocument;
  readonly at: number;
}

const PREFIX = 'plate-fold draft';
const TAB = 'plate-fold tab';

/** This tab's own name: it survives a reload, another tab has another. */
export function tabName(): string {
  let name = sessionStorage.getItem(TAB);
  if (!name) {
    name = Math.random().toString(36).slice(2, 10);
    sessionStorage.setItem(TAB, name);
  }
  return name;
}

/** Tells other tabs that this one lives, so that they leave its drafts alone. */
export const announceTab = (): void =>
  void navigator.locks?.request(`${TAB} ${tabName()}`, () => new Promise(() => undefined));

const key = (id: string, tab: string): string => `${PREFIX} ${id} ${tab}`;

/** Writes the draft at once: a reload a moment later finds it. False when the device's store is full. */
export function keepDraft(id: string, draft: Draft): boolean {
  try {
    localStorage.setItem(key(id, tabName()), JSON.stringify(draft));
    return true;
  } catch {
    return false;
  }
}

export const dropDraft = (id: string): void => localStorage.removeItem(key(id, tabName()));

/** The draft left for a plan by this tab, or by one that was closed before it could save. */
export async function findDraft(id: string): Promise<Draft | undefined> {
  const held = (await navigator.locks?.query?.())?.held?.map(l => l.name) ?? [];
  const mine = key(id, tabName());
  const keys = Object.keys(localStorage)
    .filter(k => k.startsWith(`${PREFIX} ${id} `))
    .filter(k => k === mine || !held.includes(`${TAB} ${k.split(' ').at(-1)}`))
    .sort((a, b) => Number(b === mine) - Number(a === mine));
  for (const k of keys) {
    try {
      const draft = JSON.parse(localStorage.getItem(k) ?? '') as Draft;
      if (k !== mine) {
        localStorage.setItem(mine, JSON.stringify(draft));
        localStorage.removeItem(k);
      }
      return draft;
    } catch {
      localStorage.removeItem(k);
    }
  }
  return undefined;
}

/** True when two documents say the same, whatever objects they are. */
export const sameDocument = (a: PlanDocument, b: PlanDocument): boolean =>
  a === b || JSON.stringify(a) === JSON.stringify(b);
