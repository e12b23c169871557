// No name is exported by two modules: one meaning a word, one word a meaning. Frozen schema versions keep their own.
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import ts from 'typescript';
import { root } from './prepare.mjs';

const isAside = /\.test\.ts$|\.d\.ts$|^src\/core\/formats\/versions\/|^src\/routes\/|\/\+|^src\/service-worker\//;
const files = execFileSync('git', ['ls-files', '-co', '--exclude-standard', 'src'], { cwd: root, encoding: 'utf8' })
  .split('\n')
  .filter((file) => file.endsWith('.ts') && !isAside.test(file));

const modules = new Map();
for (const file of files) {
  let text;
  try {
    text = readFileSync(`${root}/${file}`, 'utf8');
  } catch {
    continue; // Removed, and not yet committed.
  }
  for (const node of ts.createSourceFile(file, text, ts.ScriptTarget.Latest).statements) {
    if (!node.modifiers?.some(({ kind }) => kind === ts.SyntaxKind.ExportKeyword)) continue;
    const names = ts.isVariableStatement(node)
      ? node.declarationList.declarations.flatMap(({ name }) => (ts.isIdentifier(name) ? [name.text] : []))
      : node.name
        ? [node.name.text]
        : [];
    for (const name of names) modules.set(name, (modules.get(name) ?? new Set()).add(file));
  }
}

const twice = [...modules].filter(([, places]) => places.size > 1);
for (const [name, places] of twice) console.error(`${name} is exported by ${[...places].join(' and ')}`);
if (twice.length > 0) process.exit(1);
