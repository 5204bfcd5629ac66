import { writeFileSync } from 'node:fs';
import { jsonSchema } from '@plate-fold/core/plan';

writeFileSync(
  new URL('../docs/plan-file.schema.json', import.meta.url),
  `${JSON.stringify(jsonSchema(), null, 2)}\n`,
);
