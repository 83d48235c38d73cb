import { refresh, call } from '../../api/client';
import { Button } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { say } from '../../ui/notices';
import type { Saving } from '../../documents/document-store';
import { useStage } from './store';

/** Somebody else changed the shot meanwhile: which version is kept. */
export function ConflictDialog({ shotId, title }: { shotId: string; title: string }) {
  const stage = useStage();
  if (!stage.conflict) return null;
  return (
    <Dialog
      open
      onClose={() => undefined}
      title="This shot was changed elsewhere"
      footer={
        <>
          <Button
            onClick={async () => {
              try {
                await call('POST /api/shots/:id/copy', {
                  params: { id: shotId },
                  body: {
                    title: `${title}, mine`,
                    document: stage.document ?? undefined,
                  },
                });
                stage.takeTheirs();
                refresh('/api/listings');
                say('pass', 'Your version is kept as a copy of its own.');
              } catch (e) {
                say('stop', (e as Error).message);
              }
            }}
          >
            Keep mine as a copy
          </Button>
          <Button onClick={stage.takeTheirs}>Take theirs</Button>
          <Button tone="main" onClick={stage.keepMine}>
            Keep mine
          </Button>
        </>
      }
    >
      <p>{stage.conflict.message}</p>
    </Dialog>
  );
}

export function SavingNote({ saving, at }: { saving: Saving; at: Date | null }) {
  const text = {
    saved: at ? `saved ${at.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}` : 'saved',
    waiting: 'saving',
    saving: 'saving',
    offline: 'not saved yet, trying again',
    conflict: 'changed elsewhere',
  }[saving];
  return (
    <span
      role="status"
      data-testid="saving"
      className={`measure whitespace-nowrap ${saving === 'offline' || saving === 'conflict' ? 'text-coral-ink' : 'text-ink-2'}`}
    >
      {text}
    </span>
  );
}
