import { refresh, call } from '../../api/client';
import { ConflictDialog } from '../../documents/document-bar';
import { Button } from '../../ui/controls';
import { say } from '../../ui/notices';
import { useStage } from './store';

/** Somebody else changed the shot meanwhile: mine can also be kept beside theirs. */
export function ShotConflict({ shotId, title }: { shotId: string; title: string }) {
  const stage = useStage();
  const keepBoth = async () => {
    try {
      await call('POST /api/shots/:id/copy', {
        params: { id: shotId },
        body: { title: `${title}, mine`, document: stage.document ?? undefined },
      });
      stage.takeTheirs();
      refresh('/api/listings');
      say('pass', 'Your version is kept as a copy of its own.');
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };
  return (
    <ConflictDialog
      of={stage}
      word="shot"
      more={<Button onClick={() => void keepBoth()}>Keep mine as a copy</Button>}
    />
  );
}
