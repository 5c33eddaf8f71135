import type { SheetId } from '../../core/sheet/ids';
import { findLinkedSheet, type LinkedSheet } from '../../server/linked/linked-sheet';
import { Refusal } from '../../server/refusal';
import { refusalText } from '../../texts/refusal-text';

/** Asks the table of a linked sheet what a request asks for. */
export const askLinked =
  <B, A>(answer: (linked: LinkedSheet, asked: B) => Promise<A>) =>
  async ({ id, body }: { readonly id: SheetId; readonly body: B }): Promise<Response> => {
    const linked = await findLinkedSheet(id);
    if (!linked) throw new Refusal('no-sheet', refusalText('thereNoSuchSheet'));
    return Response.json(await answer(linked, body));
  };
