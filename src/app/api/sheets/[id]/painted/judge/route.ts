import Joi from 'joi';
import { MAX_FILLED } from '../../../../../../core/sharing/filling';
import { mayJudge } from '../../../../../../server/people/judge-limit';
import { painter } from '../../../../../../server/painter/painter';
import { Refusal } from '../../../../../../server/refusal';
import { contentId } from '../../../../read-query';
import { readerOf, viewQuery } from '../../../../view-query';
import { sheetRoute } from '../../../../route-declarations';
import { refusalText } from '../../../../../../texts/refusal-text';

/** Longest answer that is judged while it is typed, in UTF-16 code units. */
const MAX_ENTRY_LENGTH = MAX_FILLED;

const schema = Joi.object<{ row: string; field: string; input: string }>({
  row: contentId.required(),
  field: contentId.required(),
  input: Joi.string().allow('').max(MAX_ENTRY_LENGTH).required(),
});

/** The look that an entry would have, where outcomes are shown while one types. Nothing is kept of it. */
export const POST = sheetRoute(
  { permit: 'enter', query: viewQuery, body: schema },
  async ({ id, access, query: { theme, as }, body: cell }) => {
    if (!(await mayJudge(access.author, id, cell))) throw new Refusal('too-often', refusalText('tooManyAnswersWere'));
    const look = await painter().judge(id, { theme, reader: readerOf(access, as) }, cell);
    // The same words whatever the cell holds, and whether there is such a cell.
    if (!look) throw new Refusal('locked', refusalText('answersNotCheckedWhile'));
    return Response.json(look, { headers: { 'cache-control': 'no-store' } });
  },
);
