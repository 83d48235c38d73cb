import { useState } from 'react';
import { Button } from '../../ui/controls';
import { say } from '../../ui/notices';

/** Looks for something in the picture: busy meanwhile, with a sentence where the picture cannot be looked at. */
export function LookButton({
  title,
  meanwhile,
  onLook,
}: {
  title: string;
  /** What the button says while it looks. */
  meanwhile: string;
  onLook(): Promise<void>;
}) {
  const [busy, setBusy] = useState(false);
  const look = async () => {
    setBusy(true);
    try {
      await onLook();
    } catch (e) {
      say('stop', (e as Error).message);
    } finally {
      setBusy(false);
    }
  };
  return (
    <Button disabled={busy} onClick={() => void look()}>
      {busy ? meanwhile : title}
    </Button>
  );
}
