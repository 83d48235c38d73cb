import type { RequestOf } from '@scenograph/contract';
import { call } from '../../api/client';
import { dataOf } from '../../api/revisions';
import { tried } from '../../ui/tried';

type BodyOf<N extends 'PATCH /api/products/:id' | 'PATCH /api/variants/:id'> = Extract<
  RequestOf<N>,
  { body: unknown }
>['body'];

/** Changes a product's own values; what is bound to them is fetched anew. */
export const changeProduct = (id: string, body: BodyOf<'PATCH /api/products/:id'>) =>
  tried(
    call('PATCH /api/products/:id', { params: { id }, body }, { of: dataOf(id) }),
    '/api/products',
    '/api/listings',
  );

/** Changes a variant's values. */
export const changeVariant = (id: string, productId: string, body: BodyOf<'PATCH /api/variants/:id'>) =>
  tried(
    call('PATCH /api/variants/:id', { params: { id }, body }, { of: dataOf(productId) }),
    '/api/products',
    '/api/listings',
  );
