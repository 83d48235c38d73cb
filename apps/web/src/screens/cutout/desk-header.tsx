import { ChevronLeft, ChevronRight } from 'lucide-react';
import { Link, useNavigate } from 'react-router';
import type { Photo } from '../../api/client';
import { DocumentUndoRedo, SavingNote } from '../../documents/document-bar';
import { Button, IconButton } from '../../ui/controls';
import { CutoutFiles } from '../../ui/cutout-files';
import { TopBar } from '../../ui/top-bar';
import { putToUse } from './photo-actions';
import { saveRecipe, useRecipe } from './recipe-store';

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
        <nav aria-label="Where you are" className="flex min-w-0 items-center gap-2">
          <Link to="/photos" className="text-ink-2 hover:text-ink">
            Photos
          </Link>
          <span className="text-ink-3">/</span>
          <span className="text-ink-2 max-w-56 min-w-8 shrink truncate" title={photo.name}>
            {photo.name}
          </span>
          <span className="text-ink-3">/</span>
          <h1 className="font-semibold">Cutout</h1>
          <span className="measure text-ink-2 hidden whitespace-nowrap min-[1200px]:inline">
            photo {at + 1} of {all.length}
          </span>
          <SavingNote of={store} onTryAgain={() => void saveRecipe()} />
        </nav>
      }
    >
      <DocumentUndoRedo of={store} />
      {!inUse && saving === 'saved' && (
        <>
          <span role="status" className="text-amber-ink whitespace-nowrap">
            not in use yet
          </span>
          <Button onClick={() => void putToUse(photo.id)}>Use it now</Button>
        </>
      )}
      <CutoutFiles ids={photo.cutout ? [photo.id] : []} title="Save as" />
      <Button aria-pressed={tidying} onClick={() => onTidying(!tidying)}>
        {tidying ? 'To the edge' : 'Adjust photo'}
      </Button>
      <IconButton
        label={previous ? `Previous photo: ${previous.name}` : 'This is the first photo'}
        disabled={!previous}
        onClick={() => void navigate(`/photos/${previous.id}/cutout`)}
      >
        <ChevronLeft size={15} aria-hidden />
      </IconButton>
      <IconButton
        label={next ? `Next photo: ${next.name}` : 'This is the last photo'}
        disabled={!next}
        onClick={() => void navigate(`/photos/${next.id}/cutout`)}
      >
        <ChevronRight size={15} aria-hidden />
      </IconButton>
      <Button tone="main" onClick={() => onAccept()}>
        {next ? 'Accept, next' : 'Accept'}
      </Button>
    </TopBar>
  );
}
