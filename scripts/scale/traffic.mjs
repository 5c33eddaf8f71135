import { Agent, get } from 'node:http';
import { setTimeout as pause } from 'node:timers/promises';
import { unpackSheet } from '../../src/protocol/packed/packed-sheet';
import { unzipPacked } from '../../src/server/sheets/unzip-packed';
import { post } from '../load/writers.mjs';

/** How long an answer may take, and the pause before what failed is tried again. */
const TIMEOUT_MS = 20_000;
const AGAIN_MS = 100;
/** How often each sheet is opened. */
const OPEN_MS = 200;

/**
 * People in some sheets: writers who send a change until it is acknowledged and then the next one, readers who
 * follow the changes and connect again, and somebody who opens each sheet over and over. All of it is noted.
 */
export class Traffic {
  /** Each acknowledged change by its id. */
  acknowledged = new Map();
  /** What was answered, opened and seen: with the sheet, when, and how long that took (ms). */
  answered = [];
  opened = [];
  seen = [];
  /** What readers were sent out of order, and sheets that were older than what had been acknowledged. */
  disordered = 0;
  older = 0;
  #going = true;
  #sent = 0;
  #heads = new Map();
  #places = [];
  #isOver = false;
  #giveUpAt = Infinity;
  #writing;
  #reading;
  #opening;

  constructor(targets) {
    this.targets = targets;
  }

  /** `restMs`: how long a writer rests between changes. */
  start({ writers, readers, restMs = 0 }) {
    const each = (count, work) =>
      Promise.all(Array.from({ length: count }, (_, at) => work(this.targets[at % this.targets.length], at)));
    this.#writing = each(writers, (target, at) => this.#write(target, { writer: at, restMs }));
    this.#reading = each(readers, (target) => this.#read(target));
    this.#opening = each(this.targets.length, (target) => this.#open(target));
  }

  /** Ends once every reader has seen all that was acknowledged. */
  async stop() {
    this.#going = false;
    this.#giveUpAt = performance.now() + TIMEOUT_MS;
    await Promise.all([this.#writing, this.#opening]);
    for (let tries = 0; tries < 150 && this.behind > 0; tries++) await pause(100);
    this.#isOver = true;
    for (const { asked } of this.#places) asked?.destroy();
    await this.#reading;
  }

  /** How many readers have not seen the last acknowledged change of their sheet. */
  get behind() {
    return this.#places.filter(({ sheet, after }) => after < (this.#heads.get(sheet) ?? 0)).length;
  }

  async #write({ id, url, headers, sheet }, { writer, restMs }) {
    const agent = new Agent({ keepAlive: true, maxSockets: 1 });
    while (this.#going) {
      const change = `scale-${writer}-${++this.#sent}`;
      const [row, input] = [sheet.rows[this.#sent % sheet.rows.length], String(Math.floor(Math.random() * 100))];
      const operations = [{ kind: 'set-cells', cells: [{ row, field: sheet.field, input }] }];
      const began = performance.now();
      for (;;) {
        const answer = await post(agent, url, {
          headers,
          body: { id: change, operations },
          timeoutMs: TIMEOUT_MS,
        }).catch(() => null);
        if (answer?.status === 200) {
          const { sequence } = JSON.parse(answer.text);
          const at = performance.now();
          this.acknowledged.set(change, { sheet: id, sequence, at });
          this.#heads.set(id, Math.max(sequence, this.#heads.get(id) ?? 0));
          this.answered.push({ sheet: id, at, ms: at - began });
          break;
        }
        // What is given up was not acknowledged.
        if (performance.now() > this.#giveUpAt) break;
        if (answer && answer.status < 500 && answer.status !== 429)
          throw new Error(`A change was answered with ${answer.status}: ${answer.text}`);
        await pause(AGAIN_MS);
      }
      if (restMs) await pause(restMs);
    }
    agent.destroy();
  }

  /** Follows the changes of a sheet, over one connection after another. */
  async #read({ id, url, headers }) {
    const place = { sheet: id, after: await headNow(url, headers), asked: null };
    this.#places.push(place);
    while (!this.#isOver) {
      await this.#follow(place, url, headers);
      await pause(AGAIN_MS);
    }
  }

  #follow(place, url, headers) {
    return new Promise((resolve) => {
      place.asked = get(`${url}?after=${place.after}`, { headers }, (response) => {
        let rest = '';
        response.setEncoding('utf8').on('data', (text) => {
          const events = (rest + text).split('\n\n');
          rest = events.pop();
          for (const event of events) this.#hear(place, event);
        });
        response.on('close', resolve).on('error', resolve);
      });
      place.asked.on('error', resolve);
    });
  }

  #hear(place, event) {
    const data = /^event: changes$/m.test(event) && /^data: (.*)$/m.exec(event)?.[1];
    if (!data) return;
    const now = performance.now();
    for (const { sequence, change } of JSON.parse(data)) {
      if (sequence !== place.after + 1) this.disordered++;
      place.after = sequence;
      const acknowledged = this.acknowledged.get(change.id);
      this.seen.push({ sheet: place.sheet, at: now, ms: acknowledged ? Math.max(0, now - acknowledged.at) : 0 });
    }
  }

  async #open({ id, url, headers }) {
    while (this.#going) {
      const [began, known] = [performance.now(), this.#heads.get(id) ?? 0];
      const signal = AbortSignal.timeout(TIMEOUT_MS);
      const answer = await fetch(url.replace(/changes$/, 'packed'), { headers, signal }).catch(() => null);
      const bytes = answer?.ok ? await answer.arrayBuffer().catch(() => null) : null;
      const at = performance.now();
      if (bytes) {
        if (sequenceOf(bytes) < known) this.older++;
        this.opened.push({ sheet: id, at, ms: at - began });
      }
      await pause(bytes ? OPEN_MS : AGAIN_MS);
    }
  }
}

/** The last change of a sheet. */
async function headNow(url, headers) {
  const answer = await fetch(url.replace(/changes$/, 'packed'), { headers });
  return sequenceOf(await answer.arrayBuffer());
}

const sequenceOf = (packed) => unpackSheet(unzipPacked(new Uint8Array(packed))).head.sequence;
