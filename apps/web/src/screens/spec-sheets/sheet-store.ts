import { createDocumentStore } from '../../documents/document-store';
import { SPEC_SHEETS, type SheetDraft } from '../../documents/kinds';

/** The spec sheet on the screen, as a draft until it is stored as the next version. */
export const sheetStore = createDocumentStore<SheetDraft, object>(SPEC_SHEETS, () => ({}));
