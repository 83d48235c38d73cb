import { useParams } from 'react-router';
import { call, useRoute, type DeliveryDetail } from '../../api/client';
import { Trouble, Waiting } from '../../ui/states';
import { TopBar } from '../../ui/top-bar';
import { tried } from '../../ui/tried';
import { CellTable } from './cell-table';
import { DeliveryHead } from './delivery-head';
import { UploadAnswers } from './upload-answers';
import { msg } from '../../language/language';

export function DeliveryScreen() {
  const { id = '' } = useParams();
  const { data, error } = useRoute('GET /api/deliveries/:id', { params: { id } });
  return (
    <>
      <TopBar />
      {error && <Trouble error={error} />}
      {!data && !error && <Waiting what={msg('the delivery')} />}
      {data && <Delivered data={data} />}
    </>
  );
}

function Delivered({ data }: { data: DeliveryDetail }) {
  const marketplaces = [...new Set(data.groups.map((g) => g.marketplace))];
  const send = async (marketplace: string) => {
    const sent = { params: { id: data.id }, body: { marketplace } };
    await tried(call('POST /api/deliveries/:id/uploads', sent), '/api/deliveries');
  };
  return (
    <>
      <DeliveryHead data={data} marketplaces={marketplaces} />
      <main className="flex min-h-0 grow">
        <CellTable data={data} />
        {data.state === 'done' && <UploadAnswers data={data} marketplaces={marketplaces} onSend={send} />}
      </main>
    </>
  );
}
