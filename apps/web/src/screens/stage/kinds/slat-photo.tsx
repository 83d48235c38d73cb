import { NO_PICTURE } from '@scenograph/core/elements/base';
import { reducedUrl } from '../../../api/client';
import { msg } from '../../../language/language';

/** A stored picture on its slat of the depth strip. */
export function SlatPhoto({ picture }: { picture: string }) {
  return picture === NO_PICTURE ? (
    <span className="text-ink-2 text-[11px]">{msg('empty')}</span>
  ) : (
    <img src={reducedUrl(picture, 160)} alt="" className="max-h-full max-w-full" />
  );
}
