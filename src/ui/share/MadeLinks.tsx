import { Button } from '@mantine/core';
import { useTranslations } from 'use-intl';
import type { MadeLink } from '../../protocol/sheet-sharing';
import { Copy } from './Copy';
import classes from './Share.module.css';

/** Addresses of links that were just made: they are not kept, so this is where they can be copied. */
export function MadeLinks({ links, onClose }: { readonly links: readonly MadeLink[]; readonly onClose: () => void }) {
  const t = useTranslations('share');
  const address = ({ path }: MadeLink): string => `${location.origin}${path}`;
  const all = links.map((link) => `${link.name}\t${address(link)}`).join('\n');
  return (
    <section className={classes.made} aria-label={t('newLinks')}>
      <p className={classes.note}>{links.length === 1 ? t('copyAddressNowNot') : t('copyTheseAddressesNow')}</p>
      <ul className={classes.list}>
        {links.map((link) => (
          <li key={link.id} className={classes.item}>
            <span className={classes.who}>
              <b>{link.name}</b>
              <code>{address(link)}</code>
            </span>
            <Copy text={address(link)} label={t('copyAddressName', { name: link.name })}>
              {t('copy')}
            </Copy>
          </li>
        ))}
      </ul>
      <div className={classes.acts}>
        {links.length > 1 && (
          <Copy text={all} label={t('copyAllThemTheir')}>
            {t('copyAll')}
          </Copy>
        )}
        <Button size="compact-sm" variant="subtle" onClick={onClose}>
          {t('done')}
        </Button>
      </div>
    </section>
  );
}
