import { database } from '../server/database';
import { listSheets } from '../server/sql/sheet/list-sheets';
import { Desk } from '../ui/desk/Desk';

export const dynamic = 'force-dynamic';

export default async function DeskPage() {
  return <Desk sheets={await listSheets(database())} />;
}
