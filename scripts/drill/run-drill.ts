import { dirname, join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import type { Engine as ThisEngine } from '../../src/engine/engine';
import { Between } from './between';
import { Instance } from './instance';
import type { OlderVersion } from './older-version';
import { connectPages, DrillPage, type Acknowledged } from './page';

export const root = dirname(dirname(dirname(fileURLToPath(import.meta.url))));
const wanted = process.argv.slice(2);

interface Line {
  readonly fault: string;
  readonly times: number;
  readonly kept: number;
  readonly lost: number;
  readonly saw: string;
  readonly isGood: boolean;
}
const lines: Line[] = [];

/** How many faults were played, and how many of them went wrong. */
export const tally = () => ({ played: lines.length, failed: lines.filter(({ isGood }) => !isGood).length });

/**
 * One fault: some pages write while it happens; afterwards everything acknowledged must be there once, and all pages
 * must show the same.
 */
export interface Drill {
  readonly fault: string;
  readonly pages?: number;
  readonly seconds?: number;
  /** Rest between two entries of a page, in milliseconds. */
  readonly restMs?: number;
  readonly preload?: string;
  /** Stands for the folder of the clone when the cluster asks for it. */
  readonly place?: string;
  /** The version whose pages and process are there at the beginning, where it is not this one. */
  readonly older?: OlderVersion;
  /** Does the fault while pages write. Returns how often. */
  play(at: Stage): Promise<number>;
  readonly saw: string;
}

export interface Stage {
  readonly instance: Instance;
  readonly between: Between;
  readonly sheet: string;
  readonly cookie: string;
}

export const wants = (fault: string): boolean => wanted.length === 0 || wanted.some((word) => fault.includes(word));

export async function runDrill({
  fault,
  pages = 6,
  seconds = 15,
  restMs = 20,
  preload,
  place = root,
  older,
  play,
  saw,
}: Drill): Promise<void> {
  if (!wants(fault)) return;
  process.stderr.write(`${fault}...\n`);
  const instance = await Instance.make({ root, place, name: `drill-${process.pid}` });
  const between = new Between(() => instance.address);
  const acknowledged: Acknowledged = new Map();
  let disconnect = (): void => {};
  const open: DrillPage[] = [];
  try {
    if (older) instance.use(await older.start(instance.database));
    else {
      instance.prepare();
      await instance.start(preload ? { preload: join(root, preload) } : {});
    }
    const { Engine } = older
      ? ((await import(join(older.folder, 'src/engine/engine.ts'))) as { readonly Engine: typeof ThisEngine })
      : {};
    const cookie = await instance.signIn();
    const sheet = await instance.makeSheet(cookie);
    disconnect = connectPages({ address: await between.open(), cookie, acknowledged, statuses: new Map() });
    for (let at = 0; at < pages; at++) {
      const page = new DrillPage(Engine);
      await page.open(sheet);
      open.push(page);
    }
    let isWriting = true;
    const writing = Promise.all(
      open.map(async (page, who) => {
        for (let at = 0; isWriting; at++) {
          if (at % 9 === 8) await page.undo().catch(() => {});
          else await page.enter(1 + (who % 4), 1 + ((at * 7 + who) % 30), `${who} wrote ${at}`);
          await pause(restMs + Math.random() * 3 * restMs);
        }
      }),
    );
    const playing = play({ instance, between, sheet, cookie });
    await Promise.all([pause(seconds * 1000), playing]);
    isWriting = false;
    await writing;
    const times = await playing;
    await until(() => open.every((page) => page.isSettled), 240_000, 'the pages have not been answered');
    await until(
      () => new Set(open.map(({ shown }) => shown)).size === 1,
      // All pages share this process: they may be hundreds of changes behind one another.
      240_000,
      () => `the pages do not show the same: ${differenceOf(open)}`,
    );
    const late = new DrillPage();
    open.push(late);
    await late.open(sheet);
    await until(() => late.shown === open[0]!.shown, 20_000, 'who comes now sees something else than the log gives');
    const { lost, doubled, gaps } = await instance.check(sheet, acknowledged);
    const refusals = open.flatMap((page) => page.refusals);
    const { endedByThemselves: ended } = instance;
    const seen = ended
      ? `${saw} (the app ended by itself ${ended === 1 ? 'once' : `${ended} times`}, and was started again)`
      : saw;
    note({
      fault,
      times,
      kept: acknowledged.size,
      lost: lost + doubled + gaps,
      saw: refusals.length ? `${seen}; refused: ${refusals[0]}` : seen,
      isGood: lost + doubled + gaps + refusals.length === 0,
    });
  } catch (error) {
    note({
      fault,
      times: 0,
      kept: acknowledged.size,
      lost: 0,
      saw: `FAILED: ${(error as Error).message}`,
      isGood: false,
    });
  } finally {
    for (const page of open) page.close();
    disconnect();
    between.close();
    await instance.end();
  }
}

function note(line: Line): void {
  lines.push(line);
  console.log(`| ${line.fault} | ${line.times} | ${line.kept} | ${line.lost} | ${line.saw} |`);
}

async function until(holds: () => boolean, patienceMs: number, otherwise: string | (() => string)): Promise<void> {
  for (const end = Date.now() + patienceMs; !holds(); await pause(100))
    if (Date.now() > end) throw new Error(typeof otherwise === 'string' ? otherwise : otherwise());
}

/** How many pages show what, and where two of them differ first. */
function differenceOf(pages: readonly DrillPage[]): string {
  const groups = [...new Set(pages.map(({ shown }) => shown))].map((shown) =>
    pages.filter((page) => page.shown === shown),
  );
  const [one, other] = groups.map(([page]) => page!.shown);
  const at = [...(one ?? '')].findIndex((letter, place) => letter !== other?.[place]);
  const near = (shown = ''): string => shown.slice(Math.max(0, at - 30), at + 30);
  return `${groups.map(({ length }) => length).join(' and ')} pages, ${near(one)} against ${near(other)}`;
}
