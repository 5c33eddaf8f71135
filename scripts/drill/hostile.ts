import { request as ask } from 'node:http';
import { setTimeout as pause } from 'node:timers/promises';
import { Instance } from './instance';
import { packedRows } from '../../test/support/packed-rows';

/** Answers that are timed in each half of a round, and rounds. */
const TIMED = 60;
const ROUNDS = 5;
type Times = Record<string, number[]>;
/** How much longer 95 of 100 answers may take while others do their worst. */
const MAX_RATIO = 3;

/** Each asks for hundreds of millions of values. */
const HOSTILE = [
  '=SUMPRODUCT([.A1:.A9999000]*[.A1:.Z1])',
  '=SUMPRODUCT(LEN([.A1:.A9999000]&[.A1:.Z1]))',
  '=COUNTIF([.A1:.Z9999000];"x")',
];
/** Stays just within the limit of one formula; a field of them uses up the budget of a sheet. */
const heavy = (at: number): string => `=SUMPRODUCT([.A${at + 1}:.A${at + 2_300_000}]+${at})`;

interface Json {
  readonly method?: string;
  readonly body?: unknown;
}

/**
 * How long readers and writers of one sheet and health requests wait, first alone and then while another person's
 * sheets compute the formulas above and eight uploads hang: 95 of 100 answers may take at most three times as long.
 * Gives the table.
 */
export async function measureHostile(root: string): Promise<{ text: string; isGood: boolean }> {
  const instance = await Instance.make({ root, name: `drill-hostile-${process.pid}` });
  instance.prepare();
  const hanging: ReturnType<typeof ask>[] = [];
  let isOver = false;
  let isQuiet = true;
  let resting = 0;
  try {
    await instance.start();
    const cookie = await instance.signIn();
    const json = async (
      path: string,
      { method = 'POST', body: given }: Json = {},
      as = cookie,
    ): Promise<{ status: number; answer: unknown; cookies: string[] }> => {
      const answer = await fetch(instance.address + path, {
        method,
        headers: { 'content-type': 'application/json', cookie: as },
        ...(given === undefined ? {} : { body: JSON.stringify(given) }),
      });
      const body = await answer.text();
      return {
        status: answer.status,
        answer: /^[{[]/.test(body) ? (JSON.parse(body) as unknown) : body,
        cookies: answer.headers.getSetCookie(),
      };
    };
    const viewerOf = async (sheet: string): Promise<string> => {
      const links = await json(`/api/sheets/${sheet}/sharing/links`, {
        body: { links: [{ role: 'viewer', name: 'Readers' }] },
      });
      const [{ path }] = links.answer as [{ path: string }];
      const joined = await json(`/api${path}`, { body: { name: 'Reader' } }, '');
      return joined.cookies.map((line) => line.split(';', 1)[0]!).join('; ');
    };
    const quiet = 'station-readings';
    const reader = await viewerOf(quiet);
    const rows = await rowIds(instance, quiet, cookie);
    let written = 0;
    const steps: Record<string, () => Promise<number>> = {
      reader: async () =>
        await fetch(`${instance.address}/api/sheets/${quiet}/painted?theme=light`, {
          headers: { cookie: reader },
        }).then((answer) => answer.arrayBuffer().then(() => answer.status)),
      writer: async () =>
        (
          await json(`/api/sheets/${quiet}/changes`, {
            body: {
              id: `w${++written}`,
              operations: [
                {
                  kind: 'set-cells',
                  cells: [{ row: rows[2 + (written % 50)], field: 'oxygen', input: String(4 + (written % 60) / 10) }],
                },
              ],
            },
          })
        ).status,
      health: async () => (await json('/api/health', { method: 'GET' })).status,
    };
    const timeAll = async (times: Times): Promise<void> => {
      for (let at = 0; at < TIMED; at++)
        for (const [name, step] of Object.entries(steps)) {
          const before = performance.now();
          const status = await step();
          if (status !== 200) throw new Error(`${name} was answered ${status}`);
          (times[name] ??= []).push(performance.now() - before);
          await pause(5);
        }
    };

    // Somebody else does their worst: three sheets, each shown to a viewer again and again, with an edit between; and
    // uploads that never end.
    const worst = await Promise.all([0, 1, 2].map(async () => instance.makeSheet(cookie)));
    for (const sheet of worst) {
      const ids = await rowIds(instance, sheet, cookie);
      const cells = [...HOSTILE, ...Array.from({ length: 60 }, (_, at) => heavy(at))].map((input, at) => ({
        row: ids[at + 1],
        field: 'f2',
        input,
      }));
      await json(`/api/sheets/${sheet}/changes`, {
        body: { id: 'hostile', operations: [{ kind: 'set-cells', cells }] },
      });
    }
    const attack = async (sheet: string, who: number): Promise<void> => {
      const viewer = await viewerOf(sheet);
      const ids = await rowIds(instance, sheet, cookie);
      for (let at = 0; !isOver; at++) {
        if (isQuiet) {
          resting++;
          while (isQuiet && !isOver) await pause(20);
          resting--;
        }
        await fetch(`${instance.address}/api/sheets/${sheet}/painted?theme=light`, { headers: { cookie: viewer } })
          .then((answer) => answer.arrayBuffer())
          .catch(() => null);
        await json(`/api/sheets/${sheet}/changes`, {
          body: {
            id: `h${who}-${at}`,
            operations: [{ kind: 'set-cells', cells: [{ row: ids[1], field: 'f1', input: String(at) }] }],
          },
        }).catch(() => null);
      }
    };
    const attacks = worst.map(attack);
    for (let at = 0; at < 8; at++) {
      const upload = ask(`${instance.address}/api/sheets/import`, {
        method: 'POST',
        headers: { cookie, 'content-type': 'application/gzip', 'content-length': '100000000' },
      });
      upload.on('error', () => {});
      upload.write(Buffer.from([0x1f, 0x8b, 8, 0]));
      hanging.push(upload);
    }
    // In turns, as what a machine does in a second changes from minute to minute.
    const [alone, beside]: [Times, Times] = [{}, {}];
    await timeAll({});
    for (let round = 0; round < ROUNDS; round++) {
      isQuiet = true;
      for (const end = Date.now() + 60_000; resting < worst.length && Date.now() < end;) await pause(50);
      // The last requests of the workers may still go on.
      await pause(3000);
      await timeAll(alone);
      isQuiet = false;
      await pause(1500);
      await timeAll(beside);
    }
    isOver = true;
    await Promise.race([Promise.all(attacks), pause(60_000)]);
    const lines = Object.keys(steps).map((name) => {
      const [one, other] = [most(alone[name]!), most(beside[name]!)];
      return { name, one, other, ratio: other / one };
    });
    const table = lines.map(
      ({ name, one, other, ratio }) =>
        `| ${name} | ${one.toFixed(1)} ms | ${other.toFixed(1)} ms | ${ratio.toFixed(1)}x |`,
    );
    const head =
      '| 95 of 100 answers to | alone | beside three hostile sheets and 8 slow uploads | |\n| --- | --- | --- | --- |';
    return { text: [head, ...table].join('\n'), isGood: lines.every(({ ratio }) => ratio <= MAX_RATIO) };
  } finally {
    isOver = true;
    for (const upload of hanging) upload.destroy();
    await instance.end();
  }
}

/** The 95th percentile. */
const most = (times: readonly number[]): number => times.toSorted((a, b) => a - b)[Math.floor(times.length * 0.95)]!;

async function rowIds(instance: Instance, sheet: string, cookie: string): Promise<string[]> {
  const answer = await fetch(`${instance.address}/api/sheets/${sheet}/packed`, { headers: { cookie } });
  return packedRows(new Uint8Array(await answer.arrayBuffer()));
}
