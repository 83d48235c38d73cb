import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { refresh, type DeliveryEstimate, call } from '../../api/client';
import { Button, Segmented } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { bytesText } from '../../ui/status';
import { secondsText } from './seconds-text';
import { WHICH, type Which } from './which';

/** Several listings in one delivery. */
export function DeliverListings({ ids, onClose }: { ids: string[]; onClose(): void }) {
  const navigate = useNavigate();
  const [which, setWhich] = useState<Which>('changed');
  const [estimate, setEstimate] = useState<DeliveryEstimate | null>(null);
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  useEffect(() => {
    let here = true;
    setEstimate(null);
    call('POST /api/deliveries/estimate', { body: { listingIds: ids, which } })
      .then((e) => here && (setEstimate(e), setTrouble('')))
      .catch((e: Error) => here && setTrouble(e.message));
    return () => {
      here = false;
    };
  }, [ids, which]);
  const deliver = async () => {
    setBusy(true);
    try {
      const made = await call('POST /api/deliveries', { body: { listingIds: ids, which } });
      refresh('/api/deliveries');
      void navigate(`/deliveries/${made.id}`);
    } catch (e) {
      setTrouble((e as Error).message);
      setBusy(false);
    }
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={`Deliver ${ids.length} listing${ids.length === 1 ? '' : 's'}`}
      about="All their slots and variants in one delivery; each listing and marketplace can be downloaded by itself."
      footer={
        <>
          {trouble && (
            <p role="alert" className="text-coral-ink mr-auto">
              {trouble}
            </p>
          )}
          <Button onClick={onClose}>Cancel</Button>
          <Button tone="main" disabled={!estimate?.pictures || busy} onClick={() => void deliver()}>
            Deliver {estimate?.pictures ?? 0} pictures
          </Button>
        </>
      }
    >
      <Segmented<Which> label="Which pictures" value={which} onChange={setWhich} options={WHICH} />
      <p className="text-ink-2 mt-3" aria-live="polite">
        {estimate
          ? `${estimate.toPaint} of ${estimate.pictures} to be painted${estimate.seconds === null ? '' : `, about ${secondsText(estimate.seconds)}`}${estimate.bytes === null ? '' : `, ${bytesText(estimate.bytes)} in all`}; ${estimate.missing} missing and left out.`
          : 'Measuring ...'}
      </p>
    </Dialog>
  );
}
