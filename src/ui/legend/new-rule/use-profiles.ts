import { useEffect, useState } from 'react';
import type { FieldProfile } from '../../../core/rules/suggest/suggest-rules';
import type { FieldId } from '../../../core/sheet/ids';
import { useSession } from '../../sheet/use-session';

/** A profile of each of the first of some fields; those of the fields before until these are known. */
export function useProfiles(fields: readonly FieldId[]): readonly FieldProfile[] {
  const session = useSession();
  const [profiles, setProfiles] = useState<readonly FieldProfile[]>([]);
  // The same text while the fields are.
  const asked = fields.join(' ');
  useEffect(() => {
    let isStale = false;
    const ids = asked === '' ? [] : asked.split(' ');
    void session.rules.profileEach(ids).then((found) => !isStale && setProfiles(found));
    return () => {
      isStale = true;
    };
  }, [session, asked]);
  return profiles;
}
