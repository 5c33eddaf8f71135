#!/usr/bin/env node
// A part of npm run lint: keeps roundabout words out of comments and pages. Plain ones are in docs/glossary.md.
import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = dirname(dirname(fileURLToPath(import.meta.url)));

/** Words to avoid, and their replacements. */
const WORDS = [
  [/\bhang(s|ing)? on\b(?! the (process|global))/i, 'depends on; is time-dependent'],
  [/\bwhoever\b/i, 'the person, the caller, the reader'],
  [/\bwhat one\b|\bone goes by\b|\bgoes by there\b/i, 'the name, the key'],
  [/\banew\b/i, 'again, from scratch, rebuild'],
  [/\bby then\b/i, 'when'],
  [/\bgets? no rules\b/i, 'a reader without rules'],
  [/\b(is|are) told\b/i, 'is sent, shown, reported, notified'],
  [/\boneself\b/i, 'the person'],
  [/\bin the place of\b/i, 'instead of, replaces'],
  [/\b(is|are) met\b/i, 'matches, occurs, holds'],
  [/\bat work\b/i, 'active, evaluated, busy'],
  [/\bwhere it is not said\b/i, 'if absent'],
];

/** Lines of a file that are comments, or all lines of a page. */
function* lines(name) {
  const text = readFileSync(join(root, name), 'utf8');
  let isBlock = false;
  for (const [at, line] of text.split('\n').entries()) {
    const comment = name.endsWith('.md')
      ? line
      : isBlock || /^\s*(\/\*|\*)/.test(line)
        ? line
        : /(?:^|\s)\/\/ (.*)/.exec(line)?.[1];
    if (/\/\*/.test(line)) isBlock = !/\*\//.test(line);
    else if (isBlock && /\*\//.test(line)) isBlock = false;
    if (comment !== undefined) yield [at + 1, comment];
  }
}

const folders = ['src', 'scripts', 'test', 'docs'];
const files = folders
  .flatMap((folder) => readdirSync(join(root, folder), { recursive: true }).map((name) => join(folder, name)))
  .concat(['README.md', 'CONTRIBUTING.md', 'CHANGELOG.md'])
  .filter((name) => /\.(ts|tsx|mjs|cjs|md)$/.test(name) && name !== 'scripts/check-words.mjs');

let count = 0;
for (const name of files)
  for (const [line, text] of lines(name))
    for (const [word, instead] of WORDS) {
      const found = word.exec(text);
      if (!found) continue;
      console.log(`${name}:${line}: "${found[0]}" (${instead}): ${text.trim()}`);
      count++;
    }
console.log(count === 0 ? 'No such words.' : `${count} places.`);
process.exitCode = count === 0 ? 0 : 1;
