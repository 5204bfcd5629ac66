import type * as yup from 'yup';
import { documentSchema, sheetSchema } from './schema';

type Json = Record<string, unknown>;

function convert(d: yup.SchemaFieldDescription | undefined): Json {
  if (!d) return {};
  const s = d as yup.SchemaDescription & {
    fields?: Record<string, yup.SchemaFieldDescription>;
    innerType?: yup.SchemaFieldDescription | yup.SchemaFieldDescription[];
  };
  if (s.type === 'lazy') return { type: 'array', items: { $ref: '#/$defs/flange' } };
  const meta = (s.meta ?? {}) as { recordOf?: yup.Schema; anyOf?: [string, yup.Schema] };
  if (meta.recordOf) return { type: 'object', additionalProperties: convert(meta.recordOf.describe()) };
  if (meta.anyOf) return { anyOf: [{ const: meta.anyOf[0] }, convert(meta.anyOf[1].describe())] };
  const tests = Object.fromEntries((s.tests ?? []).map(t => [t.name, t.params ?? {}])) as Record<
    string,
    Json
  >;
  const bounds: Json = {};
  if (tests.integer) bounds.type = 'integer';
  const { min, max } = tests;
  if (s.type === 'number' && min) {
    if (min.more !== undefined) bounds.exclusiveMinimum = min.more;
    else bounds.minimum = min.min;
  }
  if (s.type === 'number' && max) bounds.maximum = max.max;
  if (s.type === 'array')
    return {
      type: 'array',
      items: convert(s.innerType as yup.SchemaFieldDescription),
      ...(min ? { minItems: min.min } : {}),
      ...(max ? { maxItems: max.max } : {}),
    };
  if (s.type === 'tuple') {
    const items = (s.innerType as yup.SchemaFieldDescription[]).map(convert);
    return { type: 'array', prefixItems: items, minItems: items.length, maxItems: items.length };
  }
  if (s.type === 'object') {
    const fields = Object.entries(s.fields ?? {});
    const required = fields.filter(([, f]) => 'optional' in f && !f.optional).map(([k]) => k);
    return {
      type: 'object',
      properties: Object.fromEntries(fields.map(([k, f]) => [k, convert(f)])),
      ...(required.length > 0 ? { required } : {}),
    };
  }
  return { type: s.type, ...bounds, ...(s.oneOf.length > 0 ? { enum: s.oneOf } : {}) };
}

/** The JSON Schema (draft 2020-12) of a plate-fold/1 document, made from the Yup schemas. Keys not named are kept. */
export function jsonSchema(): Json {
  const root = convert(documentSchema.describe());
  const plan = (root.properties as Record<string, Json>).plan as { properties: Record<string, Json> };
  const panel = (plan.properties.panels as { items: { properties: Record<string, Json> } }).items;
  const flange = (panel.properties.flanges as { items: Json }).items;
  panel.properties.flanges = { type: 'array', items: { $ref: '#/$defs/flange' } };
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: 'Plate Fold document, plate-fold/1',
    ...root,
    $defs: { flange, sheet: convert(sheetSchema.describe()) },
  };
}
