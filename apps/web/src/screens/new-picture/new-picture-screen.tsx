import { useMemo, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import type { ProductData } from '@scenograph/core/data/product-data';
import type { Shot } from '@scenograph/core/shot/document';
import { newShot } from '@scenograph/core/shot/new-shot';
import { resolveBase, type ResolvedShot } from '@scenograph/core/shot/resolve';
import type { Pose } from '@scenograph/core/stage/stand';
import { READY_SIZES, type ReadySize, type TrimmedSize } from '@scenograph/core/shot/trim';
import { call, refresh, useProducts, useRoute } from '../../api/client';
import { msg } from '../../language/language';
import { ColourField } from '../../ui/colour-field';
import { Button, Segmented, Select, TextField } from '../../ui/controls';
import { TopBar } from '../../ui/top-bar';
import { tried } from '../../ui/tried';
import { useThumbnail } from '../listings/cell-picture';
import { SizeFields } from './size-fields';
import { TrimLines } from './trim-lines';

type Ground = 'white' | 'colour' | 'transparent';
interface Choice {
  id: string;
  title: string;
  data: ProductData;
  pose: Pose;
}

const USES: Record<ReadySize['use'], string> = {
  screen: msg('For screens'),
  banner: msg('Banners'),
  print: msg('For print'),
};
/** What a ready-made size is called. */
function titleOf({ id, title, use, width, height }: ReadySize): string {
  const titles: Record<string, string> = {
    square: msg('Square'),
    portrait: msg('Portrait 4:5'),
    tall: msg('Tall 9:16'),
    wide: msg('Wide 16:9'),
    postcard: msg('Postcard'),
    poster: msg('Poster'),
  };
  return use === 'banner' ? msg('Banner {width} x {height}', { width, height }) : (titles[id] ?? title);
}

/** In no listing; without a product. */
const NONE = 'none';

/** A picture of any size: on a ground, with a product or without, in a listing or on its own. */
export function NewPictureScreen() {
  const navigate = useNavigate();
  const [params] = useSearchParams();
  const [ready, setReady] = useState<ReadySize | null>(READY_SIZES[0]);
  const [size, setSize] = useState<TrimmedSize>(READY_SIZES[0]);
  const [title, setTitle] = useState('');
  const [ground, setGround] = useState<Ground>('white');
  const [colour, setColour] = useState('#e9e4da');
  const [listing, setListing] = useState(params.get('listing') ?? NONE);
  const [variant, setVariant] = useState<string | null>(null);
  const [making, setMaking] = useState(false);
  const choices = useChoices(listing === NONE ? null : listing);
  const first = listing === NONE ? null : (choices[0]?.id ?? null);
  const chosen = choices.find((c) => c.id === (variant ?? first)) ?? null;
  const made = useMemo(() => begun(size, fillOf(ground, colour), chosen), [size, ground, colour, chosen]);
  const untitled = ready ? titleOf(ready) : `${size.width} x ${size.height} ${size.unit}`;
  const name = title.trim() || untitled;

  const make = async () => {
    if (!made.shot) return;
    setMaking(true);
    const shot = await tried(sent(made.shot, name, listing === NONE ? null : listing));
    setMaking(false);
    if (!shot) return;
    refresh('/api/listings', '/api/products');
    void navigate(`/shots/${shot.id}${chosen && listing !== NONE ? `?variant=${chosen.id}` : ''}`);
  };

  return (
    <>
      <TopBar />
      <main className="flex min-h-0 grow">
        <ReadySizes
          chosen={ready}
          onChoose={(to) => {
            setReady(to);
            setSize(to);
          }}
        />
        <Preview made={made} />
        <form
          aria-label={msg('The new picture')}
          className="border-line bg-card grid w-80 shrink-0 content-start gap-4 overflow-y-auto border-l p-4"
          onSubmit={(e) => {
            e.preventDefault();
            void make();
          }}
        >
          <h1 className="font-display text-[20px] font-bold">{msg('New picture')}</h1>
          <TextField
            label={msg('What is it called?')}
            value={title}
            onCommit={setTitle}
            placeholder={untitled}
          />
          <SizeFields
            size={size}
            onChange={(to) => {
              setReady(null);
              setSize(to);
            }}
          />
          <Told made={made} />
          <Segmented
            label={msg('Ground')}
            value={ground}
            onChange={(to: Ground) => setGround(to)}
            options={[
              { value: 'white', title: msg('White') },
              { value: 'colour', title: msg('Colour') },
              { value: 'transparent', title: msg('Transparent') },
            ]}
          />
          {ground === 'colour' && (
            <ColourField label={msg('Colour')} value={colour} onChange={setColour} onCommit={setColour} />
          )}
          <Kept
            listing={listing}
            onListing={(to) => {
              setListing(to);
              setVariant(null);
            }}
            choices={choices}
            chosen={chosen}
            onProduct={setVariant}
          />
          <Button tone="main" type="submit" disabled={!made.shot || making}>
            {making ? msg('Making the picture') : msg('Make the picture')}
          </Button>
        </form>
      </main>
    </>
  );
}

const fillOf = (ground: Ground, colour: string) =>
  ground === 'transparent'
    ? ({ type: 'transparent' } as const)
    : ({ type: 'colour', colour: ground === 'white' ? '#ffffff' : colour } as const);

/** The picture as it begins, or a sentence why it cannot be made. */
function begun(size: TrimmedSize, fill: ReturnType<typeof fillOf>, product: Choice | null): Made {
  try {
    const shot = newShot(size, fill, product);
    return { shot, resolved: resolveBase(shot, product?.data ?? null), wrong: null };
  } catch (e) {
    return { shot: null, resolved: null, wrong: (e as Error).message };
  }
}

/** The listing that it is kept in, and the product that it begins with. */
function Kept({
  listing,
  onListing,
  choices,
  chosen,
  onProduct,
}: {
  listing: string;
  onListing(id: string): void;
  choices: Choice[];
  chosen: Choice | null;
  onProduct(id: string): void;
}) {
  const { data: listings } = useRoute('GET /api/listings', { query: { limit: 300 } });
  return (
    <>
      <Labelled title={msg('Where it is kept')}>
        <Select
          className="w-full"
          label={msg('Where it is kept')}
          value={listing}
          onChange={onListing}
          options={[
            { value: NONE, title: msg('On its own') },
            ...(listings ?? []).map((l) => ({ value: l.id, title: l.title })),
          ]}
        />
      </Labelled>
      <Labelled title={msg('Product')}>
        <Select
          className="w-full"
          label={msg('Product')}
          value={chosen?.id ?? NONE}
          onChange={onProduct}
          options={[
            { value: NONE, title: msg('No product') },
            ...choices.map((c) => ({ value: c.id, title: c.title })),
          ]}
        />
      </Labelled>
    </>
  );
}

/** Stores it; a product that no listing brings along stays as it is. */
async function sent(shot: Shot, title: string, listingId: string | null): Promise<{ id: string }> {
  if (!listingId) {
    const document = {
      ...shot,
      elements: shot.elements.map((e) => ('followsVariant' in e ? { ...e, followsVariant: false } : e)),
    };
    return call('POST /api/shots', { body: { title, document } });
  }
  const [made] = await call('POST /api/listings/:id/shots/of-documents', {
    params: { id: listingId },
    body: { shots: [{ title, document: shot }] },
  });
  return made;
}

/** Variants with a cutout: of a listing, or all there are. */
function useChoices(listingId: string | null): Choice[] {
  const { data: products } = useProducts();
  const { data: detail } = useRoute(
    'GET /api/listings/:id',
    listingId ? { params: { id: listingId } } : null,
  );
  return useMemo(() => {
    if (listingId)
      return (detail?.variants ?? [])
        .filter((v) => v.data.cutout)
        .map(({ id, data, pose }) => ({ id, data, pose, title: data.variant || data.title }));
    return (products ?? []).flatMap((p) =>
      p.variants
        .filter((v) => v.data.cutout)
        .map(({ id, data, pose }) => ({
          ...{ id, data, pose },
          title: [p.title, data.variant].filter(Boolean).join(', '),
        })),
    );
  }, [listingId, detail, products]);
}

function ReadySizes({ chosen, onChoose }: { chosen: ReadySize | null; onChoose(size: ReadySize): void }) {
  return (
    <nav
      aria-label={msg('Ready-made sizes')}
      className="border-line bg-card w-56 shrink-0 overflow-y-auto border-r p-3"
    >
      {(Object.keys(USES) as ReadySize['use'][]).map((use) => (
        <section key={use} className="mb-3">
          <h2 className="text-ink-2 mb-1 text-[12px]">{USES[use]}</h2>
          <ul className="grid gap-0.5">
            {READY_SIZES.filter((s) => s.use === use).map((ready) => (
              <li key={ready.id}>
                <button
                  type="button"
                  aria-pressed={chosen?.id === ready.id}
                  onClick={() => onChoose(ready)}
                  className="hover:bg-spruce-tint aria-pressed:bg-spruce-tint aria-pressed:text-spruce flex w-full items-center gap-2.5 rounded-md px-2 py-1 text-left"
                >
                  <span className="flex h-7 w-7 shrink-0 items-center justify-center">
                    <span
                      className="border-ink-2 block border"
                      style={{
                        width: `${Math.max(8, 100 * Math.min(1, ready.width / ready.height))}%`,
                        height: `${Math.max(8, 100 * Math.min(1, ready.height / ready.width))}%`,
                      }}
                    />
                  </span>
                  <span className="min-w-0">
                    <span className="block truncate">{titleOf(ready)}</span>
                    <span className="measure text-ink-2">
                      {ready.width} x {ready.height} {ready.unit}
                    </span>
                  </span>
                </button>
              </li>
            ))}
          </ul>
        </section>
      ))}
    </nav>
  );
}

type Made = {
  shot: Shot | null;
  resolved: ResolvedShot | null;
  wrong: string | null;
};

/** The picture as it will begin, with its cut and its safe margin. */
function Preview({ made: { shot, resolved } }: { made: Made }) {
  const { canvas, size } = useThumbnail(resolved, 560, 520, true);
  return (
    <div
      className="flex min-w-0 grow items-center justify-center overflow-hidden p-6"
      style={{ background: 'var(--stage)' }}
    >
      {shot && (
        <div className="relative" style={size}>
          <canvas
            ref={canvas}
            role="img"
            aria-label={msg('The picture as it begins')}
            style={size}
            className="clear-ground absolute outline outline-[#00000026]"
          />
          <TrimLines frame={shot.frame} trim={shot.trim!} zoom={size.width / shot.frame.width} />
        </div>
      )}
    </div>
  );
}

/** How many pixels it has, or why it cannot be made. */
function Told({ made: { shot, wrong } }: { made: Made }) {
  if (!shot)
    return (
      <p role="alert" className="text-coral-ink text-[12.5px]">
        {wrong}
      </p>
    );
  return (
    <p className="measure text-ink-2" data-testid="picture-size">
      {shot.trim!.bleedMm
        ? msg('{width} x {height} px, bleed included', { ...shot.frame })
        : msg('{width} x {height} px', { ...shot.frame })}
    </p>
  );
}

function Labelled({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <div>
      <p className="text-ink-2 mb-1 text-[12px]" aria-hidden>
        {title}
      </p>
      {children}
    </div>
  );
}
