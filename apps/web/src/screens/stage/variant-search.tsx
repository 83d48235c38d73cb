import { Command } from 'cmdk';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { useDebounce } from 'use-debounce';
import { reducedUrl, useProducts, type Product, type Variant } from '../../api/client';
import { Trouble, Waiting } from '../../ui/states';
import { msg } from '../../language/language';

/** A variant that can be put on the stage, with the name it is found by. */
export type VariantChoice = Pick<Variant, 'id' | 'productId' | 'pose' | 'data'> & { title: string };

/** Products that are shown at once; with more, one narrows the search. */
const MOST = 40;

const choicesOf = (products: readonly Product[]): VariantChoice[] =>
  products.flatMap((p) =>
    p.variants.map((v) => ({
      id: v.id,
      productId: p.id,
      pose: p.pose,
      data: v.data,
      title: p.variants.length > 1 ? `${p.title}, ${v.data.variant}` : p.title,
    })),
  );

/** Any product or variant, found by name or SKU, with its picture. */
export function VariantSearch({
  title,
  open,
  onPick,
  onClose,
}: {
  title: string;
  open: boolean;
  onPick(choice: VariantChoice): void;
  onClose(): void;
}) {
  return (
    <Dialog.Root open={open} onOpenChange={(on) => !on && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-[#171b1940]" />
        <Dialog.Content
          aria-describedby={undefined}
          className="border-line bg-card fixed top-[14vh] left-1/2 z-50 w-[460px] max-w-[94vw] -translate-x-1/2 overflow-hidden rounded-lg border"
        >
          <Dialog.Title className="px-4 pt-3 font-semibold">{title}</Dialog.Title>
          <Found
            onPick={(choice) => {
              onClose();
              onPick(choice);
            }}
          />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Found({ onPick }: { onPick(choice: VariantChoice): void }) {
  const [search, setSearch] = useState('');
  const [words] = useDebounce(search, 200);
  const { data, total, error } = useProducts(MOST, words);
  const choices = choicesOf(data ?? []);
  // What Enter takes: the first that is found, until the arrows go on.
  const [at, setAt] = useState('');
  const taken = choices.some((c) => c.id === at) ? at : (choices[0]?.id ?? '');
  return (
    <Command label={msg('Products and variants')} shouldFilter={false} value={taken} onValueChange={setAt}>
      <Command.Input
        placeholder={msg('Name or SKU')}
        className="border-line h-10 w-full border-b px-4 text-[13px] outline-none"
        value={search}
        onValueChange={setSearch}
      />
      <Command.List className="max-h-[52vh] overflow-y-auto p-1.5">
        {error && <Trouble error={error} />}
        {!data && !error && <Waiting what={msg('the products')} />}
        {data?.length === 0 && (
          <p className="text-ink-2 px-3 py-6 text-center">{msg('No product has this name or SKU.')}</p>
        )}
        {choices.map((choice) => (
          <Command.Item
            key={choice.id}
            value={choice.id}
            onSelect={() => onPick(choice)}
            className="data-[selected=true]:bg-spruce-tint flex h-11 cursor-pointer items-center gap-2.5 rounded-md px-2"
          >
            <span className="flex h-9 w-9 shrink-0 items-center justify-center bg-[#bdbdbd]">
              {choice.data.cutout && (
                <img
                  src={reducedUrl(choice.data.cutout.picture, 160)}
                  alt=""
                  loading="lazy"
                  className="max-h-8 max-w-8"
                />
              )}
            </span>
            <span className="min-w-0 grow truncate">{choice.title}</span>
            <span className="text-ink-2 text-[12px] whitespace-nowrap">
              {choice.data.cutout ? choice.data.sku : msg('no cutout yet')}
            </span>
          </Command.Item>
        ))}
        {data && total > data.length && (
          <p className="text-ink-2 px-3 py-2 text-[12px]">
            {msg('{total, plural, one {# more product} other {# more products}}. Write a part of the name.', {
              total: total - data.length,
            })}
          </p>
        )}
      </Command.List>
    </Command>
  );
}
