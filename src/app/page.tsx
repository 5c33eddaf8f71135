import { database } from '../server/database';
import { settings } from '../server/settings';
import { listDesk } from '../server/sql/desk';
import { Desk } from '../ui/desk/Desk';
import { requireSignedIn } from './signed-in';

export const dynamic = 'force-dynamic';

export default async function DeskPage() {
  const person = await requireSignedIn('/');
  return (
    <Desk sheets={await listDesk(database(), person.id)} person={person.name} mayLink={settings().linked.length > 0} />
  );
}
