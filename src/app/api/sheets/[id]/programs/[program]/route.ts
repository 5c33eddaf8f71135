import { database } from '../../../../../../server/database';
import { tellAccessChanged } from '../../../../../../server/access/access-channel';
import { Refusal } from '../../../../../../server/refusal';
import { revokeProgram } from '../../../../../../server/sql/program';
import { allow } from '../../../../allow';
import { respond } from '../../../../respond';

interface Context {
  readonly params: Promise<{ id: string; program: string }>;
}

/** Takes a program's token back. */
export function DELETE(_: Request, { params }: Context): Promise<Response> {
  return respond(async () => {
    const { id } = await allow(params, 'own');
    if (!(await revokeProgram(database(), id, (await params).program)))
      throw new Refusal('no-sheet', 'There is no such program');
    await tellAccessChanged(database(), { sheet: id });
    return new Response(null, { status: 204 });
  });
}
