import type { Rule } from '../../src/core/rules/shape/rule';
import { Engine } from '../../src/engine/engine';
import type { Event, Request } from '../../src/protocol/engine-messages';
import type { LegendEntry, SheetFrame, SheetWindow } from '../../src/protocol/sheet-view';
import { makeSheet } from './arbitrary-sheet';
import { FakeServer } from './fake-server';
import { putRules } from '../../src/core/rules/shape/stored-rule';

/** The rule of the sheet that is open: it reads the first field. */
export const low: Rule = {
  id: 'low',
  name: 'Low',
  on: true,
  settles: false,
  reads: { fields: ['f1'] },
  when: { kind: 'compare', is: '<', to: 5 },
  paints: 'cell',
  look: { look: 'alarm' },
};

/** An engine with a small sheet open. Rows 1 to 10 of its field One: 5, 4.9, x, blank, 7, 70%, done, a date, -5, 6. */
export class OpenEngine {
  readonly told: Event[] = [];
  readonly engine = new Engine((events) => this.told.push(...events));

  private constructor(readonly server: FakeServer) {}

  static async make(): Promise<OpenEngine> {
    const sheet = makeSheet();
    sheet.apply(putRules([{ id: 'low', key: 'a0', rule: low }]));
    const opened = new OpenEngine(new FakeServer(sheet));
    await opened.ask({ kind: 'open', sheet: opened.server.id, theme: 'light' });
    await opened.ask({ kind: 'look-at', area: { left: 0, top: 1, right: 2, bottom: 99 } });
    return opened;
  }

  ask(request: Request): Promise<unknown> {
    return this.engine.answer(request);
  }

  /** Lets all that waits be done, then gives the last event of a kind. */
  async last<K extends Event['kind']>(kind: K): Promise<Extract<Event, { kind: K }>> {
    await new Promise((resolve) => setTimeout(resolve, 5));
    return this.told.findLast((event) => event.kind === kind) as Extract<Event, { kind: K }>;
  }

  async frame(): Promise<SheetFrame> {
    return (await this.last('frame-changed')).frame;
  }

  async window(): Promise<SheetWindow> {
    return (await this.last('window-resolved')).window;
  }

  async legend(): Promise<readonly LegendEntry[]> {
    return (await this.last('rules-counted')).legend;
  }

  async textAt(column: number, position: number): Promise<string | undefined> {
    const { area, texts } = await this.window();
    return texts[(position - area.top) * (area.right - area.left + 1) + column - area.left];
  }

  async rulesAt(column: number, position: number): Promise<readonly string[]> {
    const { area, looks, lookTable } = await this.window();
    return lookTable[looks[(position - area.top) * (area.right - area.left + 1) + column - area.left]!]!.rules;
  }
}
