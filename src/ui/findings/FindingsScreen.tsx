'use client';

import { useTranslations } from 'use-intl';
import { FindingList } from './FindingList';
import { useFeed } from './use-feed';
import type { SheetId } from '../../core/sheet/ids';
import type { FindingFeed, FollowSettings } from '../../protocol/findings';
import { SideScreen } from '../page/SideScreen';
import { SheetViews } from '../sheet/SheetViews';
import shared from './Findings.module.css';
import classes from './FindingsScreen.module.css';
import { FollowForm } from './FollowForm';
import { RuleFollow } from './RuleFollow';

interface Props {
  /** The sheet whose findings these are; null for those of all sheets. */
  readonly sheet: {
    readonly id: SheetId;
    readonly name: string;
    readonly settings: FollowSettings;
    readonly isOwner: boolean;
  } | null;
  readonly first: FindingFeed;
  readonly person: string;
}

/** The findings of each rule, the newest first: since the last visit, or all of them. */
export function FindingsScreen({ sheet, first, person }: Props) {
  const t = useTranslations('findings');
  const feed = useFeed(sheet?.id ?? null, first);
  const { asked } = feed;
  return (
    <SideScreen
      name={sheet?.name ?? t('findings')}
      views={sheet && <SheetViews sheet={sheet.id} view="findings" />}
      person={person}
    >
      <main className={classes.main}>
        <section aria-label={t('rules')}>
          {feed.rules.length === 0 && <p className={classes.none}>{t(sheet ? 'noRulesYet' : 'noRuleHasFindings')}</p>}
          <ul className={shared.list}>
            {feed.rules.map((rule) => (
              <RuleFollow
                key={`${rule.sheet} ${rule.id}`}
                rule={rule}
                isChosen={rule.id === asked.rule}
                onChoose={() => feed.ask({ ...asked, rule: rule.id === asked.rule ? undefined : rule.id })}
                onChange={(body) => feed.follow(rule.sheet, rule.id, body)}
              />
            ))}
          </ul>
          {sheet && <FollowForm sheet={sheet.id} settings={sheet.settings} isOwner={sheet.isOwner} />}
        </section>
        <FindingList feed={feed} showsSheet={sheet === null} />
      </main>
    </SideScreen>
  );
}
