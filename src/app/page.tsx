import { database } from '../server/database';
import { listSheets } from '../server/sql/sheet';
import { Desk } from '../ui/desk/Desk';
import { requireSignedIn } from './signed-in';

export const dynamic = 'force-dynamic';

export default async function DeskPage() {
  const person = await requireSignedIn('/');
  return <Desk sheets={await listSheets(database(), person.id)} person={person.name} />;
}
