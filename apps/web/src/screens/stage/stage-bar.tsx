import { memo } from 'react';
import { useSearchParams } from 'react-router';
import { useShallow } from 'zustand/react/shallow';
import type { ListingDetail, Variant } from '../../api/client';
import { DocumentUndoRedo, SavingNote } from '../../documents/document-bar';
import { Button, Select } from '../../ui/controls';
import { FindAction, TopBar } from '../../ui/top-bar';
import { ListingTrail } from '../listings/listing-trail';
import { ExportMenu, type Export } from './export-menu';
import { trySave, useStage } from './store';
import { msg } from '../../language/language';

/** The stage's top bar: whether it is saved, undo, the variant that is shown, and what can be made of the shot. */
export const StageBar = memo(function StageBar({
  detail,
  title,
  variant,
  onMake,
  onDeliver,
}: {
  detail: ListingDetail;
  title: string;
  variant: Variant;
  onMake(what: Export): void;
  onDeliver(): void;
}) {
  // All but the document itself, which changes with every move.
  const stage = useStage(useShallow(({ document: _, ...rest }) => rest));
  const [, setParams] = useSearchParams();
  return (
    <TopBar
      trail={
        <ListingTrail listing={detail.listing} title={title}>
          <SavingNote of={stage} onTryAgain={() => void trySave()} />
        </ListingTrail>
      }
    >
      <DocumentUndoRedo of={stage} />
      <FindAction />
      {detail.variants.length > 1 && (
        <Select
          label={msg('Variant on the stage')}
          className="w-34"
          value={variant.id}
          onChange={(v) => setParams((p) => (p.set('variant', v), p), { replace: true })}
          options={detail.variants.map((v) => ({ value: v.id, title: v.data.variant || v.data.sku }))}
        />
      )}
      <ExportMenu onMake={onMake} />
      <Button tone="main" onClick={onDeliver}>
        {msg('Deliver')}
      </Button>
    </TopBar>
  );
});
