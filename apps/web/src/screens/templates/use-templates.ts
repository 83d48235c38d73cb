import type { ListedTemplate } from '../../api/brand';
import { useServer } from '../../api/client';

/** Templates of one's own, then the designs that ship. */
export function useTemplates() {
  return useServer<ListedTemplate[]>('/api/templates');
}
