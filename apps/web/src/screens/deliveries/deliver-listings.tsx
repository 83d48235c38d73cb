import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { refresh, type DeliveryEstimate, call } from '../../api/client';
import { Button, Segmented } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { bytesText } from '../../ui/status';
import { Doubts } from './order-parts';
import { secondsText } from './seconds-text';
import { WHICH, type Which } from './which';
import { msg } from '../../language/language';

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
      title={msg('Deliver {ids} {ids, plural, one {listing} other {listings}}', { ids: ids.length })}
      about={msg(
        'All their slots and variants in one delivery; each listing and marketplace can be downloaded by itself.',
      )}
      footer={
        <>
          {trouble && (
            <p role="alert" className="text-coral-ink mr-auto">
              {trouble}
            </p>
          )}
          <Button onClick={onClose}>{msg('Cancel')}</Button>
          <Button tone="main" disabled={!estimate?.pictures || busy} onClick={() => void deliver()}>
            {msg('Deliver {pictures, plural, one {# picture} other {# pictures}}', {
              pictures: estimate?.pictures ?? 0,
            })}
          </Button>
        </>
      }
    >
      <Segmented<Which> label={msg('Which pictures')} value={which} onChange={setWhich} options={WHICH} />
      <p className="text-ink-2 mt-3" aria-live="polite">
        {estimate
          ? msg('{toPaint} of {pictures} to be painted{part}{part2}; {missing} missing and left out.', {
              toPaint: estimate.toPaint,
              pictures: estimate.pictures,
              part:
                estimate.seconds === null
                  ? ''
                  : msg(', about {secondsText}', { secondsText: secondsText(estimate.seconds) }),
              part2:
                estimate.bytes === null
                  ? ''
                  : msg(', {bytesText} in all', { bytesText: bytesText(estimate.bytes) }),
              missing: estimate.missing,
            })
          : msg('Measuring ...')}
      </p>
      <Doubts estimate={estimate} />
    </Dialog>
  );
}
