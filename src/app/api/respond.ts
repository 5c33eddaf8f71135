import { Refusal } from '../../server/sheets/refusal';

const STATUS: Record<Refusal['code'], number> = { 'no-sheet': 404, 'row-gone': 409, 'field-gone': 409, 'row-exists': 409, 'bad-request': 400 };

/** Runs a handler. A refusal becomes its status and words; anything else is logged here and told as no more than that. */
export async function respond(handle: () => Promise<Response>): Promise<Response> {
  try {
    return await handle();
  } catch (error) {
    if (error instanceof Refusal) return Response.json({ refused: error.message }, { status: STATUS[error.code] });
    console.error(error);
    return Response.json(
      { refused: 'Something went wrong on the server over this change, so it was not kept. Try it once more, or reload the page.' },
      { status: 500 },
    );
  }
}
