import type { RequestOf } from '@scenograph/contract';
import { useCallback, useEffect, useMemo } from 'react';
import { call, refresh, type ProductWithEdits } from '../../api/client';
import { dataOf } from '../../api/revisions';
import { say } from '../../ui/notices';
import { sayTurned } from '../../ui/say-turned';
import { tried } from '../../ui/tried';
import { msg } from '../../language/language';

type Batch = Partial<Omit<RequestOf<'POST /api/products/:id/variants/batch'>['body'], 'label'>>;

/** Changes of a product's variants: each one batch, which the server keeps and takes back. */
export function useDataEdits(product: ProductWithEdits) {
  const params = useMemo(() => ({ id: product.id }), [product.id]);
  const based = useMemo(() => ({ of: dataOf(product.id) }), [product.id]);
  const change = useCallback(
    async (label: string, batch: Batch): Promise<boolean> => {
      try {
        await call('POST /api/products/:id/variants/batch', { params, body: { label, ...batch } }, based);
        return true;
      } catch (e) {
        say('stop', (e as Error).message);
        return false;
      } finally {
        refresh('/api/products', '/api/listings');
      }
    },
    [params, based],
  );
  const turn = useCallback(
    async (way: 'undo' | 'redo') => {
      try {
        sayTurned(way, await call('POST /api/products/:id/turn', { params, body: { way } }, based));
      } catch (e) {
        say('stop', (e as Error).message);
      }
      refresh('/api/products', '/api/listings');
    },
    [params, based],
  );
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (!(e.ctrlKey || e.metaKey) || e.key.toLowerCase() !== 'z') return;
      // A cell that is being written in takes its own letters back first.
      if (e.target instanceof HTMLInputElement && e.target.value !== e.target.defaultValue) return;
      e.preventDefault();
      void turn(e.shiftKey ? 'redo' : 'undo');
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [turn]);

  const addVariant = useCallback(async () => {
    const { variants } = product;
    const taken = new Set(variants.map((v) => v.data.sku));
    const stem = variants[0]?.data.sku.replace(/-[^-]*$/, '') || 'ITEM';
    let n = variants.length + 1;
    while (taken.has(`${stem}-${n}`)) n++;
    return change(msg('Add a variant'), { add: [{ sku: `${stem}-${n}`, title: '' }] });
  }, [product, change]);
  return { change, turn, addVariant, ...removals(product, change, turn) };
}

/** What is removed from a product, and taken back from the notice that says so. */
function removals(
  product: ProductWithEdits,
  change: (label: string, batch: Batch) => Promise<boolean>,
  turn: (way: 'undo' | 'redo') => Promise<void>,
) {
  /** Removes something in one step; the notice that says so takes that step back, as long as it is the last one. */
  const removing = async (label: string, batch: Batch, said: string) => {
    if (!(await change(label, batch))) return;
    const takeBack = async () => {
      const now = await tried(call('GET /api/products/:id', { params: { id: product.id } }));
      if (now && now.edits.undo !== label)
        say(
          'look',
          msg('Other changes came after "{label}". Undo those first, with Undo above the table.', { label }),
        );
      else if (now) await turn('undo');
    };
    say('pass', said, { title: msg('Undo'), run: () => void takeBack() });
  };
  const removeColumn = async (name: string) => {
    const set = product.variants.flatMap((v) => {
      const { [name]: own, ...fields } = v.data.fields ?? {};
      return own === undefined ? [] : [{ id: v.id, patch: { fields } }];
    });
    if (set.length)
      await removing(
        msg('Remove column {name}', { name }),
        { set },
        msg('The column {name} is removed.', { name }),
      );
  };
  const removeVariants = (ids: readonly string[]) => {
    const what = msg('{ids} {ids, plural, one {variant} other {variants}}', { ids: ids.length });
    return removing(
      msg('Remove {what}', { what }),
      { remove: [...ids] },
      ids.length === 1 ? msg('{what} is removed.', { what }) : msg('{what} are removed.', { what }),
    );
  };
  return { removeColumn, removeVariants };
}
