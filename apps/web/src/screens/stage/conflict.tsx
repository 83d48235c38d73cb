import { refresh, call } from '../../api/client';
import { ConflictDialog } from '../../documents/document-bar';
import { Button } from '../../ui/controls';
import { say } from '../../ui/notices';
import { useStage } from './store';
import { msg } from '../../language/language';

/** Somebody else changed the shot meanwhile: mine can also be kept beside theirs. */
export function ShotConflict({ shotId, title }: { shotId: string; title: string }) {
  const stage = useStage();
  const keepBoth = async () => {
    try {
      await call('POST /api/shots/:id/copy', {
        params: { id: shotId },
        body: { title: msg('{title}, mine', { title }), document: stage.document ?? undefined },
      });
      stage.takeTheirs();
      refresh('/api/listings');
      say('pass', msg('Your version is kept as a copy of its own.'));
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };
  return (
    <ConflictDialog
      of={stage}
      word={msg('shot')}
      more={<Button onClick={() => void keepBoth()}>{msg('Keep mine as a copy')}</Button>}
    />
  );
}
