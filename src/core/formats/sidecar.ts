/**
 * XMP sidecars (ISO 16684-1): rating, label and what was measured, in a file beside the picture. One that is there already is changed
 * in place: what is ours is spliced into its text, everything else stays byte for byte.
 */
import { XMLParser, XMLValidator } from 'fast-xml-parser';
import type { Frame } from '../frames/schema';

/** Our own namespace for what was measured. */
const focalisNs = 'https://focalis.example/ns/1.0/';
const xmpNs = 'http://ns.adobe.com/xap/1.0/';

export interface Sidecar {
  /** −1 rejected, 0 none, 5 kept. */
  readonly rating: number;
  readonly label: string;
  /** In a line: what frames.csv says at length. */
  readonly measured: string;
}

/** How rings and strikes become what other programs read. */
export function sidecarOf(frame: Frame, remark: string): Sidecar {
  const rating = { keep: 5, maybe: 3, reject: -1 } as const;
  return {
    rating: frame.choice === null ? (frame.rating ?? 0) : rating[frame.choice],
    label: frame.choice === null ? (frame.label ?? '') : frame.choice,
    measured: remark
  };
}

const escaped = (text: string): string =>
  text
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('"', '&quot;')
    .replaceAll(/\p{Cc}/gu, ' ');

export function writeSidecar({ rating, label, measured }: Sidecar): string {
  return `<?xpacket begin="\uFEFF" id="W5M0MpCehiHzreSzNTczkc9d"?>
<x:xmpmeta xmlns:x="adobe:ns:meta/">
 <rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">
  <rdf:Description rdf:about=""
    xmlns:xmp="${xmpNs}"
    xmlns:focalis="${focalisNs}"
    xmp:Rating="${rating}"
    xmp:Label="${escaped(label)}"
    focalis:Measured="${escaped(measured)}"/>
 </rdf:RDF>
</x:xmpmeta>
<?xpacket end="w"?>
`;
}

export type Spliced = { readonly ok: true; readonly text: string } | { readonly ok: false; readonly reason: string };

/** Changes a sidecar that is there already. Nothing but our three values differs afterwards. */
export function spliceSidecar(text: string, { rating, label, measured }: Sidecar): Spliced {
  const refuse = (reason: string): Spliced => ({ ok: false, reason });
  if (XMLValidator.validate(text) !== true) return refuse('It is no well-formed XML.');
  const description = /<rdf:Description\b[^>]*>/.exec(text);
  if (!description) return refuse('It has no rdf:Description.');
  let out = text;
  const values: [string, string, string, string][] = [
    ['xmp', xmpNs, 'Rating', String(rating)],
    ['xmp', xmpNs, 'Label', label],
    ['focalis', focalisNs, 'Measured', measured]
  ];
  for (const [usual, namespace, name, value] of values) {
    const declaration = new RegExp(`xmlns:([\\w.-]+)\\s*=\\s*["']${namespace.replaceAll('.', '\\.')}["']`);
    const prefix = declaration.exec(out)?.[1];
    const own = prefix ?? usual;
    const attribute = new RegExp(`(\\s${own}:${name}\\s*=\\s*)(["'])[^"']*\\2`);
    const element = new RegExp(`(<${own}:${name}>)[^<]*(</${own}:${name}>)`);
    if (prefix !== undefined && attribute.test(out))
      out = out.replace(
        attribute,
        (_, start: string, quote: string) => `${start}${quote}${escaped(value).replaceAll("'", '&apos;')}${quote}`
      );
    else if (prefix !== undefined && element.test(out))
      out = out.replace(element, (_, start: string, end: string) => `${start}${escaped(value)}${end}`);
    else {
      const tag = /<rdf:Description\b[^>]*?(?=\s*\/?>)/.exec(out);
      const end = tag ? tag.index + tag[0].length : 0;
      // Declared further down only, it does not hold here.
      const declared = declaration.test(out.slice(0, end)) ? '' : ` xmlns:${own}="${namespace}"`;
      out = `${out.slice(0, end)}${declared} ${own}:${name}="${escaped(value)}"${out.slice(end)}`;
    }
  }
  // Whoever calls another namespace by our usual prefix keeps it.
  return XMLValidator.validate(out) === true
    ? { ok: true, text: out }
    : refuse('It uses our prefixes for something else.');
}

/** What a sidecar says of its picture; null where it cannot be read. */
export function readSidecar(text: string): Partial<Sidecar> | null {
  if (XMLValidator.validate(text) !== true) return null;
  const parser = new XMLParser({ ignoreAttributes: false, attributeNamePrefix: '', processEntities: true });
  const found: Record<string, string> = {};
  const walk = (node: unknown): void => {
    if (typeof node !== 'object' || node === null) return;
    for (const [key, value] of Object.entries(node)) {
      if (typeof value === 'string' || typeof value === 'number') found[key] ??= String(value);
      else walk(value);
    }
  };
  try {
    walk(parser.parse(text));
  } catch {
    // Nested without end, as no program writes it.
    return null;
  }
  const rating = Number(found['xmp:Rating']);
  return {
    ...(Number.isFinite(rating) ? { rating } : {}),
    ...(found['xmp:Label'] === undefined ? {} : { label: found['xmp:Label'] }),
    ...(found['focalis:Measured'] === undefined ? {} : { measured: found['focalis:Measured'] })
  };
}

const withoutEnding = (name: string): string => name.replace(/\.[^.]*$/, '');

/** Whether a sidecar is of a picture by its name: "A.xmp" and "A.JPG.xmp" are of "A.JPG". */
export function isSidecarOf(sidecar: string, picture: string): boolean {
  const base = withoutEnding(sidecar).toLowerCase();
  return base === picture.toLowerCase() || base === withoutEnding(picture).toLowerCase();
}
