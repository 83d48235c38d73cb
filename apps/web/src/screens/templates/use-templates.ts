import { useRoute } from '../../api/client';

/** Templates of one's own, then the designs that ship. */
export function useTemplates() {
  return useRoute('GET /api/templates');
}
