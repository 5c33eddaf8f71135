import { useEffect, useState } from 'react';
import type { FieldProfile } from '../../../core/rules/suggest/suggest-rules';
import type { FieldId } from '../../../core/sheet/ids';
import { useSession } from '../../sheet/use-session';

export interface Profiles {
  /** One for each of the first of the fields; those of the fields before until these are known. */
  readonly profiles: readonly FieldProfile[];
  readonly isCurrent: boolean;
}

/** What some fields hold. */
export function useProfiles(fields: readonly FieldId[]): Profiles {
  const session = useSession();
  const [found, setFound] = useState<{ readonly of: string; readonly profiles: readonly FieldProfile[] }>({
    of: '',
    profiles: [],
  });
  // The same text while the fields are.
  const asked = fields.join(' ');
  useEffect(() => {
    let isStale = false;
    const ids = asked === '' ? [] : asked.split(' ');
    void session.rules.profileEach(ids).then((profiles) => !isStale && setFound({ of: asked, profiles }));
    return () => {
      isStale = true;
    };
  }, [session, asked]);
  return { profiles: found.profiles, isCurrent: found.of === asked };
}
