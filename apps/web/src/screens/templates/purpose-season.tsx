import { PURPOSES, SEASONS, type Purpose, type Season } from '@scenograph/core/templates/template';
import { capitalised } from '../../ui/capitalised';
import { Select } from '../../ui/controls';
import { msg } from '../../language/language';

const options = <T extends string>(values: readonly T[]) =>
  values.map((value) => ({ value, title: msg(capitalised(value)) }));

/** For which purpose and which season; the first of each stands for any. */
export function PurposeSeason<More extends string = never>({
  purpose,
  season,
  onPurpose,
  onSeason,
  any = msg('Every purpose'),
  more = [],
}: {
  purpose: Purpose | 'all' | NoInfer<More>;
  season: Season | 'all';
  onPurpose(value: Purpose | 'all' | NoInfer<More>): void;
  onSeason(value: Season | 'all'): void;
  any?: string;
  /** Further choices beside the purposes. */
  more?: { value: More; title: string }[];
}) {
  return (
    <>
      <Select<Purpose | 'all' | More>
        label={msg('Purpose')}
        value={purpose}
        onChange={onPurpose}
        options={[{ value: 'all', title: any }, ...more, ...options(PURPOSES)]}
      />
      <Select<Season | 'all'>
        label={msg('Season')}
        value={season}
        onChange={onSeason}
        options={[{ value: 'all', title: msg('Any season') }, ...options(SEASONS)]}
      />
    </>
  );
}
