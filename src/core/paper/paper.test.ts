import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { describe, expect, it } from 'vitest';
import { ellipse, rectangle, type Drawing } from './primitives';
import { drawingSvg } from './svg';

const drawing: Drawing = {
  width: 200,
  height: 100,
  title: 'Doors & "windows" <above>',
  marks: [
    { kind: 'path', d: 'M0 0L10 10', stroke: 'ink', width: 2, dash: [5, 4] },
    { kind: 'path', d: 'M0 0H300V50Z', fill: 'cool', opacity: 0.2, within: { x: 0, y: 10, width: 200, height: 80 } },
    { kind: 'text', x: 5, y: 20, text: 'Ines & <Corvin>\u0007', size: 12, anchor: 'middle', tone: 'soft' }
  ]
};

describe('a drawing as SVG', () => {
  it('is sound XML that says what it shows, whatever people are called', () => {
    const svg = drawingSvg(drawing);
    expect(XMLValidator.validate(svg)).toBe(true);
    const read = new XMLParser({ ignoreAttributes: false, attributeNamePrefix: '' }).parse(svg) as {
      svg: Record<string, unknown>;
    };
    expect(read.svg['title']).toBe('Doors & "windows" <above>');
    expect(read.svg['viewBox']).toBe('0 0 200 100');
    expect(read.svg['text']).toMatchObject({ '#text': 'Ines & <Corvin>', 'text-anchor': 'middle', fill: '#505050' });
    const paths = read.svg['path'] as Record<string, string>[];
    expect(paths[0]).toMatchObject({ fill: 'none', stroke: '#141414', 'stroke-dasharray': '5 4' });
    expect(paths[1]).toMatchObject({ fill: '#24587a', opacity: '0.2', 'clip-path': 'url(#within-1)' });
    expect(read.svg['clipPath']).toMatchObject({ id: 'within-1', rect: { y: '10', height: '80' } });
  });

  it('has ellipses and rectangles as paths', () => {
    expect(ellipse(10, 20, 4, 2)).toBe('M6 20A4 2 0 0 1 14 20A4 2 0 0 1 6 20Z');
    // Turned by a right angle its long axis stands.
    expect(ellipse(10, 20, 4, 2, 90)).toBe('M10 16A4 2 90 0 1 10 24A4 2 90 0 1 10 16Z');
    expect(rectangle({ x: 1, y: 2, width: 3, height: 4 })).toBe('M1 2H4V6H1Z');
  });
});
