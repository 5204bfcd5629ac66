import { describe, expect, it } from 'vitest';
import { csv, hardwareListCsv, toolListCsv } from './index';

describe('csv', () => {
  it('quotes what needs it and disarms formulas (RFC 4180)', () => {
    expect(
      csv(
        ['a', 'b'],
        [
          ['x, y', 'say "hi"'],
          ['=1+1', 3],
        ],
      ),
    ).toBe('a,b\r\n"x, y","say ""hi"""\r\n\'=1+1,3\r\n');
  });
  it('writes the bag list and the tool roll', () => {
    expect(
      hardwareListCsv([{ kind: 'bolt', part: 'flange bolt M10x1.5 \u00d7 25, 8.8, zinc', count: 3 }]),
    ).toBe('part,count\r\n"flange bolt M10x1.5 \u00d7 25, 8.8, zinc",3\r\n');
    expect(toolListCsv([{ tool: 'socket 16 mm', for: ['j1', 'j2'] }], 'metric')).toContain(
      'socket 16 mm,j1 j2',
    );
  });
});
