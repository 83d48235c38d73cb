import { PURPOSES, SEASONS } from '@scenograph/core/templates/template';
import { capitalised } from '../../ui/capitalised';
import { Select } from '../../ui/controls';

const options = (values: readonly string[]) => values.map((value) => ({ value, title: capitalised(value) }));

/** For which purpose and which season; the first of each stands for any. */
export function PurposeSeason({
  purpose,
  season,
  onPurpose,
  onSeason,
  any = 'Every purpose',
  more = [],
}: {
  purpose: string;
  season: string;
  onPurpose(value: string): void;
  onSeason(value: string): void;
  any?: string;
  /** Further choices beside the purposes. */
  more?: { value: string; title: string }[];
}) {
  return (
    <>
      <Select
        label="Purpose"
        value={purpose}
        onChange={onPurpose}
        options={[{ value: 'all', title: any }, ...more, ...options(PURPOSES)]}
      />
      <Select
        label="Season"
        value={season}
        onChange={onSeason}
        options={[{ value: 'all', title: 'Any season' }, ...options(SEASONS)]}
      />
    </>
  );
}
