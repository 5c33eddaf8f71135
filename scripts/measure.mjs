// npm run measure: the shape of the sources in src, without tests, beside what the project holds itself to.
import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import ts from 'typescript';

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const MAX_COLUMNS = 120;
const LONG_FUNCTION_LINES = 60;
const MAX_FILES_IN_A_FOLDER = 25;

const isSource = (path) => /\.(ts|tsx|css)$/.test(path) && !/\.test\.tsx?$/.test(path);
const files = readdirSync(join(root, 'src'), { recursive: true, withFileTypes: true })
  .filter((entry) => entry.isFile() && isSource(entry.name))
  .map((entry) => join(entry.parentPath, entry.name));
const sources = files
  .filter((path) => !path.endsWith('.css'))
  .map((path) => ts.createSourceFile(path, readFileSync(path, 'utf8'), ts.ScriptTarget.Latest, true));

/** Calls `visit` with every node of the sources. */
function walk(visit) {
  for (const source of sources) {
    const into = (node) => {
      visit(node, source);
      ts.forEachChild(node, into);
    };
    into(source);
  }
}

function functionLengths() {
  const lengths = [];
  walk((node, source) => {
    if (!ts.isFunctionLike(node) || !node.body) return;
    const line = (position) => source.getLineAndCharacterOfPosition(position).line;
    lengths.push({
      lines: line(node.end) - line(node.getStart()) + 1,
      name: node.name?.getText() ?? '(anonymous)',
      file: source.fileName,
    });
  });
  return lengths.sort((a, b) => a.lines - b.lines);
}

function longLines() {
  const lines = files.flatMap((path) => readFileSync(path, 'utf8').split('\n'));
  return (100 * lines.filter((line) => line.length > MAX_COLUMNS).length) / lines.length;
}

function assertions() {
  const counts = { nonNull: 0, casts: 0 };
  walk((node) => {
    if (ts.isNonNullExpression(node)) counts.nonNull++;
    if (ts.isAsExpression(node) && node.type.getText() !== 'const') counts.casts++;
  });
  return counts;
}

/** The files that each file imports, types included. */
function importGraph() {
  const known = new Map(sources.map((source) => [source.fileName, source]));
  const locate = (path) =>
    ['.ts', '.tsx', '/index.ts', '.d.ts'].map((ending) => path + ending).find((name) => known.has(name));
  const targets = (source) =>
    source.statements
      .filter(
        (statement) =>
          (ts.isImportDeclaration(statement) || ts.isExportDeclaration(statement)) && statement.moduleSpecifier,
      )
      .map((statement) => statement.moduleSpecifier.text)
      .map((name) =>
        name.startsWith('@/')
          ? join(root, 'src', name.slice(2))
          : name.startsWith('.')
            ? resolve(dirname(source.fileName), name)
            : '',
      )
      .map((path) => locate(path))
      .filter(Boolean);
  return new Map(sources.map((source) => [source.fileName, targets(source)]));
}

/** Groups of files that import one another around: strongly connected components of two or more (Tarjan 1972). */
function cycles(graph) {
  const order = new Map();
  const low = new Map();
  const stack = [];
  const open = new Set();
  const found = [];
  const visit = (node) => {
    order.set(node, order.size);
    low.set(node, order.get(node));
    stack.push(node);
    open.add(node);
    for (const next of graph.get(node)) {
      if (!order.has(next)) {
        visit(next);
        low.set(node, Math.min(low.get(node), low.get(next)));
      } else if (open.has(next)) low.set(node, Math.min(low.get(node), order.get(next)));
    }
    if (low.get(node) !== order.get(node)) return;
    const component = stack.splice(stack.indexOf(node));
    for (const member of component) open.delete(member);
    if (component.length > 1) found.push(component);
  };
  for (const node of graph.keys()) if (!order.has(node)) visit(node);
  return found.sort((a, b) => b.length - a.length);
}

/** The files in which one of some texts stands as a literal. */
function filesNaming(texts) {
  const naming = new Set();
  walk((node, source) => {
    if (ts.isStringLiteral(node) && texts.has(node.text)) naming.add(source.fileName);
  });
  return [...naming];
}

/** The kinds of an operation, as its union names them. */
function operationKinds() {
  const kinds = new Set();
  walk((node, source) => {
    if (!source.fileName.includes('/core/sheet/') || !ts.isTypeAliasDeclaration(node) || node.name.text !== 'Operation')
      return;
    const into = (part) => {
      if (ts.isPropertySignature(part) && part.name.getText() === 'kind' && ts.isLiteralTypeNode(part.type))
        kinds.add(part.type.literal.text);
      ts.forEachChild(part, into);
    };
    into(node);
  });
  return kinds;
}

function fullFolders() {
  const counts = new Map();
  for (const path of files) counts.set(dirname(path), (counts.get(dirname(path)) ?? 0) + 1);
  return [...counts].filter(([, count]) => count > MAX_FILES_IN_A_FOLDER).sort((a, b) => b[1] - a[1]);
}

const short = (path) => path.slice(join(root, 'src').length + 1);
const lengths = functionLengths();
const at = (share) => lengths[Math.floor(share * (lengths.length - 1))].lines;
const over = lengths.filter(({ lines }) => lines > LONG_FUNCTION_LINES).reverse();
const { nonNull, casts } = assertions();
const rings = cycles(importGraph());
const operations = filesNaming(operationKinds());
const roles = filesNaming(new Set(['filler', 'viewer']));
const folders = fullFolders();

const rows = [
  ['files', sources.length, ''],
  ['function median / p90 / longest', `${at(0.5)} / ${at(0.9)} / ${lengths.at(-1).lines}`, 'longest under 120'],
  [`functions over ${LONG_FUNCTION_LINES} lines`, over.length, 'under 12'],
  [`lines over ${MAX_COLUMNS} columns`, `${longLines().toFixed(2)} %`, 'under 0.5 %'],
  ['non-null ! / casts as T', `${nonNull} / ${casts}`, 'under 250 / under 120'],
  ['cycles with type imports', rings.map((ring) => ring.length).join(', ') || 0, '0'],
  ['files that name a kind of operation', operations.length, ''],
  ['files that name a role of readers', roles.length, ''],
  [`flat folders over ${MAX_FILES_IN_A_FOLDER} files`, folders.map(([, count]) => count).join(', ') || 0, '0'],
];
for (const [what, now, aim] of rows) console.log(`${what.padEnd(38)} ${String(now).padEnd(22)} ${aim}`);
if (process.argv.includes('--list')) {
  for (const { name, lines, file } of over) console.log(`${lines} lines: ${name} in ${short(file)}`);
  for (const ring of rings) console.log(`cycle: ${ring.map(short).join(' ')}`);
  for (const [folder, count] of folders) console.log(`${count} files: ${short(folder)}`);
  console.log(`operations: ${operations.map(short).join(' ')}\nroles: ${roles.map(short).join(' ')}`);
}
