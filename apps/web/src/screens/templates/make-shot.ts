import { fillTemplate } from '@scenograph/core/templates/fill';
import { call, type ListedTemplate, type Variant } from '../../api/client';
import { say } from '../../ui/notices';
import { tried } from '../../ui/tried';
import { msg } from '../../language/language';

/** The other variants of a listing, for templates with several places. */
export function othersOf(listing: { variants: Variant[] }, first: Variant) {
  return listing.variants.filter((v) => v.id !== first.id && v.data.cutout).map((v) => v.data);
}

/**
 * Fills a template with a variant of a listing (its first with a cutout otherwise) as a new shot of it.
 * @returns the shot's id; null where it could not be made, which is told
 */
export async function makeShot(
  template: ListedTemplate,
  listingId: string,
  wanted: string | null,
): Promise<string | null> {
  const params = { id: listingId };
  const listing = await tried(call('GET /api/listings/:id', { params }));
  if (!listing) return null;
  const cut = listing.variants.filter((v) => v.data.cutout);
  const first = cut.find((v) => v.id === wanted) ?? cut[0];
  if (!first) {
    say('stop', msg('No variant of this listing has a cutout any more. Cut its photo out first.'));
    return null;
  }
  const document = fillTemplate(template.document, first.data, first.pose, othersOf(listing, first));
  const body = { shots: [{ title: template.title, document }] };
  const made = await tried(
    call('POST /api/listings/:id/shots/of-documents', { params, body }),
    '/api/listings',
  );
  return made ? made[0].id : null;
}
