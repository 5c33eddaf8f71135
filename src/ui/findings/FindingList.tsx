import { Button, SegmentedControl } from '@mantine/core';
import { useTranslations } from 'use-intl';
import { FindingItem } from './FindingItem';
import shared from './Findings.module.css';
import classes from './FindingList.module.css';
import type { Feed } from './use-feed';

/** The findings of a feed, the newest first. */
export function FindingList({ feed, showsSheet }: { readonly feed: Feed; readonly showsSheet: boolean }) {
  const t = useTranslations('findings');
  const { asked, findings, unseen, chosen, message, isEnd } = feed;
  return (
    <section aria-label={t('findings')}>
      <div className={classes.head}>
        <SegmentedControl
          size="xs"
          aria-label={t('whichFindings')}
          value={asked.only ?? 'all'}
          data={[
            { value: 'unseen', label: t('newUnseen', { unseen }) },
            { value: 'all', label: t('all') },
          ]}
          onChange={(only) => feed.ask({ ...asked, only: only === 'unseen' ? 'unseen' : undefined })}
        />
        {unseen > 0 && (
          <Button size="compact-sm" variant="default" onClick={feed.seeAll}>
            {chosen ? t('markAllNameAs', { name: chosen.name }) : t('markAllAsSeen')}
          </Button>
        )}
      </div>
      {message && <p role="alert">{message}</p>}
      {findings.length === 0 && (
        <p className={shared.none}>
          {asked.only ? t('noNewFindings') : t('noFindingsYet')} {t('recordsThatStartMatch')}
        </p>
      )}
      <ol className={shared.list} aria-label={t('findings')}>
        {findings.map((finding) => (
          <FindingItem
            key={finding.id}
            finding={finding}
            showsSheet={showsSheet}
            onSee={() => feed.see(finding.sheet, finding.id)}
            onNote={(text) => feed.note(finding.sheet, finding.id, text)}
          />
        ))}
      </ol>
      {!isEnd && (
        <Button variant="default" onClick={feed.more}>
          {t('showEarlierFindings')}
        </Button>
      )}
    </section>
  );
}
