import type { PlanDocument } from '@plate-fold/core/plan';
import jsonPatch from 'fast-json-patch';
import { nanoid } from 'nanoid';

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
    name = nanoid(8);
    sessionStorage.setItem(TAB, name);
  }
  return name;
}

/**
 * Tells other tabs that this one lives, so that they leave its drafts alone. A tab that was made as a copy of another comes with that one's
 * name: it takes a new one. Where a page has no locks (one from the local network) the name stays.
 */
export async function announceTab(): Promise<void> {
  const { locks } = navigator;
  if (!locks) return;
  for (;;) {
    const mine = await new Promise<boolean>(done => {
      void locks.request(`${TAB} ${tabName()}`, { ifAvailable: true }, lock => {
        done(lock !== null);
        return lock ? new Promise(() => undefined) : undefined;
      });
    });
    if (mine) return;
    sessionStorage.setItem(TAB, nanoid(8));
  }
}

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

/** The draft left for a plan by this tab, or by one that was closed before it could save. Two tabs that look at once never take the same. */
export async function findDraft(id: string): Promise<Draft | undefined> {
  const { locks } = navigator;
  return locks ? locks.request('plate-fold drafts', () => takenDraft(id)) : takenDraft(id);
}

async function takenDraft(id: string): Promise<Draft | undefined> {
  const held = (await navigator.locks?.query?.())?.held?.map(l => l.name) ?? [];
  const mine = key(id, tabName());
  const keys = Object.keys(localStorage)
    .filter(k => k.startsWith(`${PREFIX} ${id} `))
    .filter(k => k === mine || !held.includes(`${TAB} ${k.split(' ').at(-1)}`))
    .sort((a, b) => Number(b === mine) - Number(a === mine));
  for (const k of keys) {
    const text = localStorage.getItem(k) ?? '';
    let draft: Draft;
    try {
      draft = JSON.parse(text) as Draft;
    } catch {
      localStorage.removeItem(k);
      continue;
    }
    if (k !== mine) {
      // taken over: out of the old place first, since a full store has no room for both
      localStorage.removeItem(k);
      try {
        localStorage.setItem(mine, text);
      } catch {
        localStorage.setItem(k, text);
      }
    }
    return draft;
  }
  return undefined;
}

/** True when two documents say the same, whatever objects they are and in whatever order their keys stand. */
export const sameDocument = (a: PlanDocument, b: PlanDocument): boolean =>
  a === b || jsonPatch.compare(a, b).length === 0;
