import { describe, expect, it } from 'vitest';
import { isSidecarOf, readSidecar, spliceSidecar, writeSidecar } from './sidecar';

const ours = { rating: 5, label: 'keep', measured: 'everyone sharp, "Ines" & <all>' };

/** As some other program left it: elements and attributes, its own namespaces, odd spacing. */
const theirs = `<?xpacket begin="" id="W5M0MpCehiHzreSzNTczkc9d"?>
<x:xmpmeta xmlns:x="adobe:ns:meta/" x:xmptk="another">
<rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">
\t<rdf:Description   rdf:about="" xmlns:my="http://ns.adobe.com/xap/1.0/" my:Rating='2'
     xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:crop="urn:crop" crop:left="0.25">
    <my:Label>Green</my:Label>
    <dc:subject><rdf:Bag><rdf:li>family &amp; steps</rdf:li></rdf:Bag></dc:subject>
  </rdf:Description>
</rdf:RDF></x:xmpmeta>
<!-- the end -->   `;

describe('a sidecar', () => {
  it('is read back as it was written', () => {
    expect(readSidecar(writeSidecar(ours))).toEqual(ours);
    expect(readSidecar(writeSidecar({ rating: -1, label: '', measured: '' }))?.rating).toBe(-1);
  });

  it('that is there already is changed in place: nothing but our values differs', () => {
    const spliced = spliceSidecar(theirs, { ...ours, measured: 'soft' });
    if (!spliced.ok) throw new Error(spliced.reason);
    const { text } = spliced;
    expect(text).toContain("my:Rating='5'");
    expect(text).toContain('<my:Label>keep</my:Label>');
    // Take our own out again, and it is theirs, byte for byte.
    const back = text
      .replace("my:Rating='5'", "my:Rating='2'")
      .replace('<my:Label>keep</my:Label>', '<my:Label>Green</my:Label>')
      .replace(' xmlns:focalis="https://focalis.example/ns/1.0/" focalis:Measured="soft"', '');
    expect(back).toBe(theirs);
  });

  it('is spliced twice to the same, and ours is spliced as anybody else’s', () => {
    const once = spliceSidecar(theirs, ours);
    if (!once.ok) throw new Error(once.reason);
    expect(spliceSidecar(once.text, ours)).toEqual(once);
    const own = spliceSidecar(writeSidecar({ rating: 0, label: '', measured: '' }), ours);
    expect(own.ok && readSidecar(own.text)).toEqual(ours);
  });

  it('declares what is declared only further down, and leaves alone what uses our prefix for something else', () => {
    const rdf = 'xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"';
    const later = `<rdf:RDF ${rdf}><rdf:Description a="1"/><rdf:Description xmlns:xmp="http://ns.adobe.com/xap/1.0/" b="2"/></rdf:RDF>`;
    const spliced = spliceSidecar(later, ours);
    if (!spliced.ok) throw new Error(spliced.reason);
    expect(spliced.text).toMatch(/<rdf:Description a="1" xmlns:xmp="[^"]+" xmp:Rating="5" xmp:Label="keep"/);
    expect(spliced.text).toContain('b="2"/></rdf:RDF>');
    const taken = `<rdf:RDF ${rdf}><rdf:Description xmlns:xmp="urn:other" xmp:Rating="9"/></rdf:RDF>`;
    expect(spliceSidecar(taken, ours)).toEqual({ ok: false, reason: 'It uses our prefixes for something else.' });
  });

  it('is of a picture by its name', () => {
    expect(isSidecarOf('IMG_1.xmp', 'IMG_1.JPG')).toBe(true);
    expect(isSidecarOf('img_1.jpg.XMP', 'IMG_1.JPG')).toBe(true);
    expect(isSidecarOf('IMG_12.xmp', 'IMG_1.JPG')).toBe(false);
  });

  it('that is none is refused, and said', () => {
    expect(spliceSidecar('<x:xmpmeta>', ours).ok).toBe(false);
    expect(spliceSidecar('<a/>', ours)).toEqual({ ok: false, reason: 'It has no rdf:Description.' });
    expect(readSidecar('no xml <')).toBeNull();
    // Nested deeper than anybody reads.
    expect(readSidecar(`${'<a>'.repeat(20_000)}${'</a>'.repeat(20_000)}`)).toBeNull();
  });
});
