import type { ReactNode } from 'react';
import classes from './NewRule.module.css';

/** A titled list of what can be taken. */
export function Offers({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <section aria-label={title}>
      <h3 className={classes.title}>{title}</h3>
      <ul className={classes.list}>{children}</ul>
    </section>
  );
}

interface OfferProps {
  readonly title: string;
  readonly says?: string;
  readonly onTake: () => void;
}

/** One thing that can be taken. */
export function Offer({ title, says, onTake }: OfferProps) {
  return (
    <li>
      <button type="button" className={classes.offer} onClick={onTake}>
        {title}
        {says && <span>{says}</span>}
      </button>
    </li>
  );
}
