import { readFileSync } from 'node:fs';
import { demoText } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import * as yup from 'yup';
import { checkDocument, checked, describeFaults, jsonSchema, readDocument, writeDocument } from './index';

const text = demoText('bramble');
// biome-ignore lint/suspicious/noExplicitAny: tests break documents on purpose
type Loose = any;
const broken = (change: (doc: Loose) => void): string => {
  const doc = JSON.parse(text);
  change(doc);
  const r = checkDocument(doc);
  return r.ok ? '' : describeFaults(r.faults);
};

describe('a plate-fold/1 document', () => {
  it('round-trips without loss', () => {
    const r = readDocument(text);
    expect(r.ok).toBe(true);
    if (r.ok) expect(writeDocument(r.document)).toBe(text);
  });
  it('keeps keys it does not know, anywhere', () => {
    fc.assert(
      fc.property(fc.jsonValue(), fc.constantFrom('rig', 'plan'), (value, where) => {
        const doc = JSON.parse(text);
        doc.later = value;
        doc[where].later = value;
        doc.plan.panels[0].base.later = value;
        const r = readDocument(JSON.stringify(doc));
        expect(r.ok && JSON.parse(writeDocument(r.document))).toEqual(JSON.parse(JSON.stringify(doc)));
      }),
      { numRuns: 20 },
    );
  });

  it.each<[string, (d: Loose) => void]>([
    ['rig.wheelbase is missing', d => delete d.rig.wheelbase],
    ['rig.wheelbase is -5, but must be above 0', d => (d.rig.wheelbase = -5)],
    ['rig.axles.front.massKg is "heavy", which is not a number', d => (d.rig.axles.front.massKg = 'heavy')],
    ['rig.body is "bus", but must be one of truck', d => (d.rig.body = 'bus')],
    [
      'plan.panels[1].base.outline has 2 entries and needs at least 3',
      d => d.plan.panels[1].base.outline.splice(2),
    ],
    [
      'plan.joints[3].fastener.length must be "auto" or a number',
      d => (d.plan.joints[3].fastener.length = 'long'),
    ],
    [
      'plan.builds[0].sheets.plate-a.thickness is 0, but must be above 0',
      d => (d.plan.builds[0].sheets['plate-a'].thickness = 0),
    ],
    [
      'plan.panels[0].flanges[0].flanges[0].length is -1',
      d => (d.plan.panels[0].flanges[0].flanges[0].length = -1),
    ],
    [
      'plan.panels[0].openings[0].shape must have exactly one of',
      d => (d.plan.panels[0].openings[0].shape.rect = [1, 2]),
    ],
    ['rig.mounts[0].at', d => (d.rig.mounts[0].at = [1, 2])],
    [
      'plan.builds[0].sheets.plate-a.material is "steel-1018", but must be one of steel-hr36',
      d => (d.plan.builds[0].sheets['plate-a'].material = 'steel-1018'),
    ],
    [
      'plan.rates.cut.value is not a number',
      d => (d.plan.rates = { cut: { value: Number.NaN, source: '' } }),
    ],
    ['plan.rates.cut.value is -2', d => (d.plan.rates = { cut: { value: -2, source: 'a typing error' } })],
    ['plan.money.taxPercent is 700', d => (d.plan.money = { taxPercent: 700 })],
    ['plan.fenders.front.before is 0, but must be above 0', d => (d.plan.fenders = { front: { before: 0 } })],
    [
      'plan.priorities[1] is "magic", but must be one of weight',
      d => (d.plan.priorities = ['cost', 'magic']),
    ],
  ])('says "%s"', (message, change) => {
    expect(broken(change)).toContain(message);
  });

  it.each<[string, (d: Loose) => void]>([
    ['plan.joints[0].mount names mount "gone", which does not exist', d => (d.plan.joints[0].mount = 'gone')],
    ['plan.joints[1].id is "j01", which an earlier entry already has', d => (d.plan.joints[1].id = 'j01')],
    [
      'plan.panels[2].base.outline crosses itself: edge 0 meets edge 2',
      d => {
        const o = d.plan.panels[2].base.outline;
        [o[1], o[2]] = [o[2], o[1]];
      },
    ],
    ['plan.activeBuild names build "Z"', d => (d.plan.activeBuild = 'Z')],
    [
      'plan.builds[0].sheets has no sheet for panel "plate-e"',
      d => delete d.plan.builds[0].sheets['plate-e'],
    ],
    ['rig.selected.engine is "ten"', d => (d.rig.selected.engine = 'ten')],
    [
      'plan.panels[0].flanges[0].edge is 9, but the outline has edges 0 to 3',
      d => (d.plan.panels[0].flanges[0].edge = 9),
    ],
    ['plan.seams[0].outside is "plate-e"', d => (d.plan.seams[0].outside = 'plate-e')],
    ['plan.rigId is "heron"', d => (d.plan.rigId = 'heron')],
  ])('sees across keys: "%s"', (message, change) => {
    expect(broken(change)).toContain(message);
  });

  it('names a newer format and a torn text', () => {
    expect(broken(d => (d.format = 'plate-fold/9'))).toContain('this version reads "plate-fold/1" only');
    const torn = readDocument(text.slice(0, text.length / 2));
    expect(torn.ok).toBe(false);
    if (!torn.ok) expect(torn.faults[0]?.path).toMatch(/^line \d+$/);
    expect(readDocument('[]').ok).toBe(false);
  });
});

describe('the JSON Schema in docs', () => {
  it('is the one the schemas give', () => {
    const kept = JSON.parse(
      readFileSync(new URL('../../../docs/plan-file.schema.json', import.meta.url), 'utf8'),
    );
    expect(kept).toEqual(JSON.parse(JSON.stringify(jsonSchema())));
  });
  it('requires exactly the keys a document cannot do without', () => {
    const s = jsonSchema() as unknown as { required: string[]; properties: { rig: { required: string[] } } };
    expect(s.required).toEqual(['format', 'rig', 'plan']);
    const missing = (key: string): string => broken(d => delete d.rig[key]);
    for (const key of s.properties.rig.required) expect(missing(key)).toContain(`rig.${key} is missing`);
  });
});

describe('a value from outside', () => {
  const schema = yup.object({
    at: yup.number().required().min(0),
    who: yup.string().max(4),
    list: yup.array().of(yup.number().required()).max(2),
  });
  it.each([
    [{ at: 3, who: 'me', extra: [1] }, ''],
    [{ who: 'me' }, 'Not a thing: at is missing.'],
    [{ at: '3' }, 'Not a thing: at is "3", which is not a number.'],
    [
      { at: -1, list: [1, 2, 3] },
      'Not a thing: at is -1, but must be 0 or more; list has 3 entries; 2 is the most.',
    ],
    ['text', 'Not a thing: it is "text", which is not a group of keys.'],
    [null, 'Not a thing: it is missing.'],
  ])('%j is taken as it is, or refused by path and reason', (value, said) => {
    const r = checked(schema, value, 'a thing');
    if (r.ok) expect(r.value).toBe(value);
    expect(r.ok ? '' : r.fault).toBe(said);
  });
});
