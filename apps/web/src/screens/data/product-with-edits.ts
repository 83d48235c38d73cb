import type { EditState, Product } from '../../api/client';

/** A product as its data screen shows it, with what can be taken back. */
export type ProductWithEdits = Product & { edits: EditState };
