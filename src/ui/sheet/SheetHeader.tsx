import Link from 'next/link';
import { useTranslations } from 'use-intl';
import type { Texts } from '../../texts/texts';
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
  const t = useTranslations('sheet');
  return (
    <header className={shared.header}>
      <Link href="/" prefetch={false} className={classes.mark} aria-label={t('allSheets')}>
        <Mark />
      </Link>
      <h1 className={shared.name}>{name}</h1>
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
  const t = useTranslations('sheet');
  return (
    <p className={classes.seenAs} role="status">
      {t('previewAsAAs', { as })} <Link href={sheetPageUrl(sheet)}>{t('exitPreview')}</Link>
    </p>
  );
}

function LinkMark() {
  const t = useTranslations('sheet');
  const link = useSessionState((state) => state.link);
  const pending = useSessionState((state) => state.pending);
  const hasFailed = useSessionState((state) => state.failure !== null);
  const words = hasFailed ? t('notOpen') : linkWords({ link, pending }, t);
  return (
    <span className={classes.link} role="status" aria-label={words} data-testid="link">
      <span className={classes.dot} data-state={link} aria-hidden />
      <span className={shared.linkWords}>{words}</span>
    </span>
  );
}

function linkWords({ link, pending }: Pick<SessionState, 'link' | 'pending'>, t: Texts<'sheet'>): string {
  if (link === 'opening') return t('opening');
  if (link === 'offline') return t('offlinePendingChangesWait', { pending });
  if (link === 'busy') return t('busyPendingChangesWait', { pending });
  return pending ? t('saving') : t('liveAllSaved');
}
