/** The words a photographer would not say, held out of every text somebody reads. */
import { readdirSync, readFileSync, statSync } from 'node:fs';
import { extname, join, relative } from 'node:path';
import { parse } from 'svelte/compiler';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';
import banned from './banned.json' with { type: 'json' };

const root = join(import.meta.dirname, '../../..');

function filesIn(folder: string): string[] {
  return readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    return statSync(path).isDirectory() ? filesIn(path) : [path];
  });
}

interface Read {
  readonly where: string;
  readonly text: string;
}

/** Every text in code that has a space, so that keys and class names are none. */
function textsOf(code: string, where: string): Read[] {
  const found: Read[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node)) return;
    if (ts.isStringLiteralLike(node) || ts.isTemplateHead(node) || ts.isTemplateMiddleOrTemplateTail(node))
      found.push({ where, text: node.text });
    ts.forEachChild(node, visit);
  };
  visit(ts.createSourceFile('a.ts', code, ts.ScriptTarget.Latest));
  return found;
}

/** What stands between tags and in attributes people read, and what its scripts say. */
function textsOfComponent(source: string, where: string): Read[] {
  const found: Read[] = [];
  const seen = new Set<unknown>();
  const visit = (node: unknown): void => {
    if (node === null || typeof node !== 'object' || seen.has(node)) return;
    seen.add(node);
    const { type, data, name } = node as { type?: string; data?: string; name?: string };
    if (type === 'Attribute' && (name === 'class' || name === 'd' || name === 'of' || name?.startsWith('on') === true))
      return;
    if (type === 'Text' && data !== undefined) found.push({ where, text: ` ${data.replaceAll(/\s+/g, ' ')} ` });
    if (type === 'Literal' || type === 'TemplateElement') {
      const { value } = node as { value?: unknown };
      const text = typeof value === 'string' ? value : ((value as { cooked?: string } | null)?.cooked ?? '');
      found.push({ where, text });
    }
    if (type === 'ImportDeclaration') return;
    for (const child of Object.values(node)) {
      if (Array.isArray(child)) child.forEach(visit);
      else visit(child);
    }
  };
  const { fragment, instance, module } = parse(source, { modern: true });
  visit(fragment);
  visit(instance?.content);
  visit(module?.content);
  return found;
}

const code = filesIn(join(root, 'src')).filter(
  (path) => !/\.test\.ts$|\/testing\/|\/versions\/|\/answers\/|schema\.ts$|README\.md$/.test(path)
);
const pages = ['README.md', 'docs/guide.md', 'docs/running.md', 'docs/formats.md', 'docs/model.md'].map((path) =>
  join(root, path)
);
/** Where figures come from is marked so in the docs, as their readers expect; names of files and keys are no words. */
const plain = (line: string) => line.replaceAll(/`[^`]*`/g, '').replaceAll(/from memory/gi, '');

function allTexts(): Read[] {
  return [...code, ...pages].flatMap((path) => {
    const source = readFileSync(path, 'utf8');
    const where = relative(root, path);
    if (extname(path) === '.md') return source.split('\n').map((text) => ({ where, text: plain(text) }));
    if (extname(path) === '.svelte') return textsOfComponent(source, where);
    return extname(path) === '.ts' ? textsOf(source, where) : [];
  });
}

describe('the words of every text somebody reads', () => {
  it('are the glossary’s: none that it bans', () => {
    // What is one small word in code is a key; between tags it is read.
    const texts = allTexts().filter(({ text }) => /\s|^\p{Lu}/u.test(text));
    expect(texts.length).toBeGreaterThan(3000);
    const pattern = (words: string) => new RegExp(`(?<![\\p{L}-])(?:${words})(?!\\p{L})`, 'iu');
    const any = pattern(Object.keys(banned).join('|'));
    const found = texts.flatMap(({ where, text }) => {
      if (!any.test(text)) return [];
      const [word, instead] = Object.entries(banned).find(([one]) => pattern(one).test(text)) ?? [];
      return [`${where}: “${text.trim()}” has “${word}”; say ${instead}`];
    });
    expect(found).toEqual([]);
    expect(any.test('28 cm in the sharp zone')).toBe(true);
  });

  it('are found in code and in components, between tags, in attributes and in their scripts; imports and classes are none', () => {
    const component = `<script>import a from 'not read'; const b = 'one text';</script>
      <p class="not read" title="another text">a third {\`and \${b} more\`}</p>`;
    const read = (found: readonly Read[]) => found.map(({ text }) => text.trim()).filter((text) => text.includes(' '));
    expect(read(textsOfComponent(component, ''))).toEqual(['another text', 'a third', 'one text']);
    expect(read(textsOf("import a from 'not read'; const b = `two texts ${c} in one`;", ''))).toEqual([
      'two texts',
      'in one'
    ]);
  });
});
