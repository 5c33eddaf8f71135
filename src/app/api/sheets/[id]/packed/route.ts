import Joi from 'joi';
import type { SheetId } from '../../../../../core/sheet/ids';
import type { WindowAsked } from '../../../../../protocol/linked-table';
import { longWork } from '../../../../../server/database';
import { findLinkedSheet } from '../../../../../server/linked/linked-sheet';
import { packWindow } from '../../../../../server/linked/open-window';
import { Refusal } from '../../../../../server/refusal';
import { readMuch } from '../../../../../server/replicas';
import { packedAsOf } from '../../../../../server/sheets/sheet-as-of';
import { packedForReaders } from '../../../../../server/sheets/read-packed';
import { refusalText } from '../../../../../texts/refusal-text';
import { windowSchema } from '../../../linked-window';
import { sequence } from '../../../read-query';
import { sheetRoute } from '../../../route-declarations';

export const dynamic = 'force-dynamic';

interface Asked {
  readonly at?: number;
  readonly window?: string;
}

const schema = Joi.object<Asked>({ at: sequence, window: Joi.string().max(10_000) });

/** The sheet as it is, or as it was after the change `at`; of a linked table the rows of a window, given as JSON. */
export const GET = sheetRoute({ permit: 'work', query: schema }, async ({ id, query: { at, window } }) => {
  const packed =
    at === undefined ? await packedNow(id, window) : await readMuch(longWork(), (sql) => packedAsOf(sql, id, at));
  // Compressed as its content type says: a content-encoding of our own would be taken off on the way out.
  return new Response(packed, {
    headers: { 'content-type': 'application/gzip', 'cache-control': 'no-store' },
  });
});

async function packedNow(id: SheetId, window: string | undefined): Promise<Uint8Array<ArrayBuffer>> {
  const linked = await findLinkedSheet(id);
  return linked ? packWindow(id, linked, readWindow(window)) : packedForReaders(id);
}

function readWindow(text = '{}'): WindowAsked {
  const { error, value } = Joi.string()
    .custom((json: string) => JSON.parse(json) as unknown)
    .validate(text);
  const read = windowSchema.validate(error ? null : value);
  if (error || read.error) throw new Refusal('bad-request', refusalText('windowMustBeJson'));
  return read.value;
}
