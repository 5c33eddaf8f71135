import Joi from 'joi';
import { LINK_ROLES } from '../../../../../../core/sharing/role';
import { database } from '../../../../../../server/database';
import { makeLinks, type AskedLink } from '../../../../../../server/sheets/share-sheet';
import { linkEnd } from '../../../../link-end';
import { contentId } from '../../../../read-query';
import { sheetRoute } from '../../../../route-declarations';

/** Links made at once: one for each student of a large class. */
const MAX_LINKS = 200;

const gives = Joi.object({
  kind: Joi.valid('all', 'fields', 'rows', 'next-field', 'next-row').required(),
  fields: Joi.array()
    .items(contentId)
    .min(1)
    .max(100)
    .when('kind', { is: 'fields', then: Joi.required(), otherwise: Joi.forbidden() }),
  rows: Joi.array()
    .items(contentId)
    .min(1)
    .max(1000)
    .when('kind', { is: 'rows', then: Joi.required(), otherwise: Joi.forbidden() }),
});

const schema = Joi.object<{ links: readonly (Omit<AskedLink, 'endsAt'> & { readonly endsAt: number | null })[] }>({
  links: Joi.array()
    .items(
      Joi.object({
        role: Joi.valid(...LINK_ROLES).required(),
        name: Joi.string().trim().min(1).max(80).required(),
        gives: gives.default({ kind: 'all' }),
        endsAt: linkEnd.default(null),
      }),
    )
    .min(1)
    .max(MAX_LINKS)
    .required(),
});

/** Makes links; their addresses are shown once. */
export const POST = sheetRoute({ permit: 'own', body: schema }, async ({ id, access, body: { links } }) => {
  const asked = links.map((link) => ({ ...link, endsAt: link.endsAt === null ? null : new Date(link.endsAt) }));
  return Response.json(await makeLinks(database(), id, { by: access, asked }), { status: 201 });
});
