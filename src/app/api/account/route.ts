import Joi from 'joi';
import { database } from '../../../server/database';
import { setRegion, updatePerson } from '../../../server/sql/person';
import { REGIONS } from '../../../texts/locale';
import { personName } from '../person-schema';
import { personRoute } from '../route-declarations';

interface AccountChange {
  readonly name?: string;
  readonly region?: string | null;
}

const schema = Joi.object<AccountChange>({ name: personName, region: Joi.valid(...REGIONS, null) }).min(1);

/** Gives the account another name, or another region of numbers and dates. */
export const PATCH = personRoute({ body: schema }, async ({ person: { id }, body: { name, region } }) => {
  if (name !== undefined) await updatePerson(database(), id, { name });
  if (region !== undefined) await setRegion(database(), id, region);
  return Response.json({ name, region });
});
