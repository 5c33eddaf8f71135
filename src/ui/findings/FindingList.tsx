import { Button, SegmentedControl } from '@mantine/core';
import { FindingItem } from './FindingItem';
import shared from './Findings.module.css';
import classes from './FindingList.module.css';
import type { Feed } from './use-feed';

/** The findings of a feed, the newest first. */
export function FindingList({ feed, showsSheet }: { readonly feed: Feed; readonly showsSheet: boolean }) {
  const { asked, findings, unseen, chosen, message, isEnd } = feed;
  return (
    <section aria-label="Findings">
      <div className={classes.head}>
        <SegmentedControl
          size="xs"
          aria-label="Which findings"
          value={asked.only ?? 'all'}
          data={[
            { value: 'unseen', label: `New (${unseen})` },
            { value: 'all', label: 'All' },
          ]}
          onChange={(only) => feed.ask({ ...asked, only: only === 'unseen' ? 'unseen' : undefined })}
        />
        {unseen > 0 && (
          <Button size="compact-sm" variant="default" onClick={feed.seeAll}>
            {chosen ? `Mark all of ${chosen.name} as seen` : 'Mark all as seen'}
          </Button>
        )}
      </div>
      {message && <p role="alert">{message}</p>}
      {findings.length === 0 && <p className={shared.none}>{asked.only ? 'No new findings.' : 'No findings yet.'}</p>}
      <ol className={shared.list} aria-label="Findings">
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
          Show earlier findings
        </Button>
      )}
    </section>
  );
}
