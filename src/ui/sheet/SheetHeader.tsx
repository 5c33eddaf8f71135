import Link from 'next/link';
import type { SessionState } from './session-state';
import { isMaker, type Reader, type SheetRole, hasLegend, isOwner } from '../../core/sharing/role';
import { PersonMenu, type Person } from '../people/PersonMenu';
import { Files } from '../files/Files';
import { Share } from '../share/Share';
import { ThemeSwitch } from '../theme/ThemeSwitch';
import type { SheetId } from '../../core/sheet/ids';
import { Mark } from './Mark';
import { OthersHere } from './OthersHere';
import shared from './SheetScreen.module.css';
import classes from './SheetHeader.module.css';
import { SheetViews } from './SheetViews';
import { useSessionState } from './use-session';
import { sheetPageUrl } from '../../protocol/sheet-url';

interface Props {
  readonly id: SheetId;
  readonly name: string;
  readonly role: SheetRole;
  readonly person: Person;
  readonly as: Reader['role'] | undefined;
}

/** The sheet's name and how the connection stands. */
export function SheetHeader({ id, name, role, person, as }: Props) {
  return (
    <header className={shared.header}>
      <Link href="/" className={classes.mark} aria-label="All sheets">
        <Mark />
      </Link>
      <h1 className={shared.name} style={{ fontFamily: "'Newsreader Variable', serif" }}>
        {name}
      </h1>
      {as === undefined ? isMaker(role) && <SheetViews sheet={id} view="sheet" /> : <SeenAs sheet={id} as={as} />}
      <span className={shared.spacer} />
      <OthersHere />
      <LinkMark />
      {hasLegend(role) && as === undefined && <Files isMaker={isMaker(role)} />}
      {isOwner(role) && as === undefined && <Share sheet={id} />}
      <ThemeSwitch />
      <PersonMenu person={person} />
    </header>
  );
}

/** While the owner looks at the sheet as others get it. */
function SeenAs({ sheet, as }: { readonly sheet: SheetId; readonly as: Reader['role'] }) {
  return (
    <p className={classes.seenAs} role="status">
      Preview as a {as}. <Link href={sheetPageUrl(sheet)}>Exit preview</Link>
    </p>
  );
}

function LinkMark() {
  const link = useSessionState((state) => state.link);
  const pending = useSessionState((state) => state.pending);
  const words = linkWords(link, pending);
  return (
    <span className={classes.link} role="status" aria-label={words} data-testid="link">
      <span className={classes.dot} data-state={link} aria-hidden />
      <span className={shared.linkWords}>{words}</span>
    </span>
  );
}

function linkWords(link: SessionState['link'], pending: number): string {
  if (link === 'opening') return 'Opening…';
  if (link === 'offline')
    return pending
      ? `Offline: ${pending} ${pending === 1 ? 'change waits' : 'changes wait'} here`
      : 'Offline: trying again';
  return pending ? 'Saving…' : 'Live, all saved';
}
