import { ChevronLeft, ChevronRight } from 'lucide-react';
import { Link, useNavigate } from 'react-router';
import type { Photo } from '../../api/client';
import { DocumentUndoRedo, SavingNote } from '../../documents/document-bar';
import { Button, IconButton } from '../../ui/controls';
import { CutoutFiles } from '../../ui/cutout-files';
import { TopBar } from '../../ui/top-bar';
import { putToUse } from './photo-actions';
import { saveRecipe, useRecipe } from './recipe-store';
import { msg } from '../../language/language';

/** Which photo this is, whether its corrections are stored and used, and the way to the next. */
export function DeskHeader({
  photo,
  all,
  tidying,
  onTidying,
  onAccept,
}: {
  photo: Photo;
  all: readonly Photo[];
  tidying: boolean;
  onTidying(on: boolean): void;
  onAccept(): void;
}) {
  const navigate = useNavigate();
  const store = useRecipe();
  const { inUse, saving } = store;
  const at = all.findIndex((p) => p.id === photo.id);
  const next = all[at + 1];
  const previous = all[at - 1];
  return (
    <TopBar
      trail={
        <nav aria-label={msg('Where you are')} className="flex min-w-0 items-center gap-2">
          <Link to="/photos" className="text-ink-2 hover:text-ink">
            {msg('Photos')}
          </Link>
          <span className="text-ink-3">/</span>
          <span className="text-ink-2 max-w-56 min-w-8 shrink truncate" title={photo.name}>
            {photo.name}
          </span>
          <span className="text-ink-3">/</span>
          <h1 className="font-semibold">{msg('Cutout')}</h1>
          <span className="measure text-ink-2 hidden whitespace-nowrap min-[1200px]:inline">
            {msg('photo {at} of {all}', { at: at + 1, all: all.length })}
          </span>
          <SavingNote of={store} onTryAgain={() => void saveRecipe()} />
        </nav>
      }
    >
      <DocumentUndoRedo of={store} />
      {!inUse && saving === 'saved' && (
        <>
          <span role="status" className="text-amber-ink whitespace-nowrap">
            {msg('not in use yet')}
          </span>
          <Button onClick={() => void putToUse(photo.id)}>{msg('Use it now')}</Button>
        </>
      )}
      <CutoutFiles ids={photo.cutout ? [photo.id] : []} title={msg('Save as')} />
      <Button aria-pressed={tidying} onClick={() => onTidying(!tidying)}>
        {tidying ? msg('To the edge') : msg('Adjust photo')}
      </Button>
      <IconButton
        label={
          previous
            ? msg('Previous photo: {previous}', { previous: previous.name })
            : msg('This is the first photo')
        }
        disabled={!previous}
        onClick={() => void navigate(`/photos/${previous.id}/cutout`)}
      >
        <ChevronLeft size={15} aria-hidden />
      </IconButton>
      <IconButton
        label={next ? msg('Next photo: {next}', { next: next.name }) : msg('This is the last photo')}
        disabled={!next}
        onClick={() => void navigate(`/photos/${next.id}/cutout`)}
      >
        <ChevronRight size={15} aria-hidden />
      </IconButton>
      <Button tone="main" onClick={() => onAccept()}>
        {next ? msg('Accept, next') : msg('Accept')}
      </Button>
    </TopBar>
  );
}
