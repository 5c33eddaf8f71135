import { Button } from '@mantine/core';
import { lazy, Suspense, useState } from 'react';
import { useTranslations } from 'use-intl';
import type { MadeLink } from '../../protocol/sheet-sharing';
import { Copy } from './Copy';
import code from './LinkCode.module.css';
import classes from './Share.module.css';

const LinkCode = lazy(() => import('./LinkCode'));

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
          <Made key={link.id} name={link.name} address={address(link)} />
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

interface MadeProps {
  readonly name: string;
  readonly address: string;
}

/** One address, to be copied, or to be read from the screen by a phone. */
function Made({ name, address }: MadeProps) {
  const t = useTranslations('share');
  const [isShown, setShown] = useState(false);
  return (
    <li className={classes.item}>
      <span className={classes.who}>
        <b>{name}</b>
        <code>{address}</code>
      </span>
      <Button
        size="compact-sm"
        variant={isShown ? 'light' : 'default'}
        aria-expanded={isShown}
        aria-label={t('qrCodeOf', { name })}
        onClick={() => setShown(!isShown)}
      >
        {t('qrCode')}
      </Button>
      <Copy text={address} label={t('copyAddressName', { name })}>
        {t('copy')}
      </Copy>
      {isShown && (
        <Suspense fallback={<span className={code.wait} />}>
          <LinkCode address={address} title={t('qrCodeOf', { name })} />
        </Suspense>
      )}
    </li>
  );
}
