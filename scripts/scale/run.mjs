import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { main, Trouble } from '../run.mjs';
import { endAll, play } from './play.mjs';

const root = join(dirname(fileURLToPath(import.meta.url)), '..', '..');

const seconds = (ms) => (ms / 1000).toFixed(1);
const whole = (value) => value.toFixed(0);
const span = ({ half, most }) => `${whole(half)}, ${whole(most)}`;

const HEADS = [
  '',
  'changes',
  'answered in',
  'seen after',
  'opened in',
  'no change for',
  'no opening for',
  'no findings for',
];

/** A table of the parts of a run, in Markdown. Times in ms (median, 95 %), pauses in seconds. */
function table(parts) {
  const rows = parts.map(({ does, answered, opened, seen, findings }) => [
    does,
    String(answered.count),
    span(answered),
    span(seen),
    span(opened),
    seconds(answered.pause),
    seconds(opened.pause),
    seconds(findings),
  ]);
  const line = (cells) => `| ${cells.join(' | ')} |`;
  return [line(HEADS), line(HEADS.map(() => '---')), ...rows.map(line)].join('\n');
}

for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => void endAll().then(() => process.exit(1)));

await main(async () => {
  const { values } = parseArgs({ options: { runs: { type: 'string', default: '1' } } });
  const runs = Number(values.runs);
  if (!(runs > 0)) throw new Trouble('--runs takes a number above 0.');
  let failed = 0;
  for (let run = 1; run <= runs; run++) {
    const { parts, acknowledged, lost, doubled, disordered, older, behind } = await play(
      root,
      `scale-${process.pid}-${run}`,
    );
    console.log(`\nRun ${run} of ${runs}. Milliseconds: median, 95 %. Pauses: the longest of any sheet, in seconds.\n`);
    console.log(table(parts));
    console.log(
      `\n${acknowledged} changes acknowledged: ${lost} lost, ${doubled} doubled. Sent to readers out of order: ${disordered}. Readers who missed some: ${behind}. Opened older than acknowledged: ${older}.`,
    );
    if (lost + doubled + disordered + behind + older > 0) failed++;
  }
  console.log(`\n${runs - failed} of ${runs} runs without fault.`);
  if (failed > 0) process.exitCode = 1;
});
