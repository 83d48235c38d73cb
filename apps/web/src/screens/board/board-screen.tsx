import { useMemo, useState } from 'react';
import { useParams } from 'react-router';
import { refreshBoards, type ListingDetail, useRoute } from '../../api/client';
import { useActions, type Action } from '../../ui/actions';
import { Trouble, Waiting } from '../../ui/states';
import { TopBar } from '../../ui/top-bar';
import { DeliverDialog } from '../deliveries/deliver-dialog';
import { AddShot } from './add-shot';
import { BoardGrid } from './board-grid';
import { BoardHead } from './board-head';
import { BoardTools } from './board-tools';
import { CellPanel } from './cell-panel';
import { ChosenBar } from './chosen-bar';
import { boardCounts } from './counts';
import { ShotsStrip } from './shots-strip';
import { useBoardEdits } from './use-board-edits';
import { useShown } from './use-shown';
import { msg } from '../../language/language';

export function BoardScreen() {
  const { id = '' } = useParams();
  const { data, error } = useRoute('GET /api/listings/:id', { params: { id } });
  if (error || !data)
    return (
      <>
        <TopBar />
        {error ? <Trouble error={error} /> : <Waiting what={msg('the listing')} />}
      </>
    );
  return <ListingBoard key={data.listing.id} detail={data} />;
}

function ListingBoard({ detail }: { detail: ListingDetail }) {
  const { listing, variants, shots } = detail;
  const params = useMemo(() => ({ id: listing.id }), [listing.id]);
  const { data: board } = useRoute('GET /api/listings/:id/board', { params });
  const shown = useShown(detail, board);
  const edits = useBoardEdits(listing.id);
  const [delivering, setDelivering] = useState<'all' | 'chosen' | null>(null);
  const [adding, setAdding] = useState(false);
  const [showShots, setShowShots] = useState(true);
  // While the board is not known, nothing is counted.
  const counts = useMemo(
    () => (board ? boardCounts(board.rows, variants.length, shown.everySlot) : null),
    [board, variants.length, shown.everySlot],
  );
  const actions = useMemo<Action[]>(() => {
    const action = (id: string, title: string, run: () => void) => ({
      id,
      title,
      group: msg('Listing'),
      run,
    });
    return [
      action('deliver', msg('Deliver pictures of this listing'), () => setDelivering('all')),
      action('add-shot', msg('Add a shot'), () => setAdding(true)),
      action('fill', msg('Fill empty slots by their rules'), () => void edits.fill()),
      action('undo-board', msg('Undo the last change of the board'), () => void edits.turn('undo')),
      action('redo-board', msg('Redo on the board'), () => void edits.turn('redo')),
      action('refresh-board', msg('Measure the board again'), refreshBoards),
    ];
  }, [edits]);
  useActions('listing', actions);
  const single = shown.cells.length === 1 ? shown.cells[0] : null;
  return (
    <>
      <TopBar />
      <BoardHead listing={listing} counts={counts} onDeliver={() => setDelivering('all')} />
      {showShots && <ShotsStrip detail={detail} onAdd={() => setAdding(true)} />}
      <BoardTools {...{ detail, board, shown, edits, showShots }} onShowShots={setShowShots} />
      <main className="flex min-h-0 grow">
        <BoardGrid detail={detail} board={board} shown={shown} onFeed={edits.feed} />
        {single && <CellPanel key={`${single.variantId} ${single.slotKey}`} detail={detail} cell={single} />}
      </main>
      <ChosenBar shown={shown} shots={shots} edits={edits} onDeliver={() => setDelivering('chosen')} />
      {delivering && (
        <DeliverDialog
          detail={detail}
          chosen={delivering === 'chosen' ? shown.cells : undefined}
          onClose={() => setDelivering(null)}
        />
      )}
      {adding && <AddShot detail={detail} onClose={() => setAdding(false)} />}
    </>
  );
}
