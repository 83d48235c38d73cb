import {
  BarController,
  BarElement,
  CategoryScale,
  Chart as ChartJs,
  Legend,
  LinearScale,
  Tooltip,
  type ChartOptions,
} from 'chart.js';
import { Bar } from 'react-chartjs-2';
import { useParams } from 'react-router';
import { type BoardSummary, useRoute } from '../../api/client';
import { Trouble, Waiting } from '../../ui/states';
import { bytesText } from '../../ui/status';
import { Table, type TableColumn } from '../../ui/table';
import { TopBar } from '../../ui/top-bar';
import { ListingTrail } from '../listings/listing-trail';
import { msg } from '../../language/language';

ChartJs.register(BarController, BarElement, CategoryScale, LinearScale, Tooltip, Legend);
ChartJs.defaults.font.family = "'Hanken Grotesk Variable', system-ui, sans-serif";
ChartJs.defaults.color = '#5a625e';

const STATES = [
  { keys: ['pass'], title: msg('pass'), colour: '#12463a' },
  { keys: ['look'], title: msg('warning'), colour: '#b87503' },
  { keys: ['stop', 'failed'], title: msg('failed'), colour: '#d9472f' },
  { keys: ['stale'], title: msg('out of date'), colour: '#8b918e' },
  { keys: ['never', 'waiting'], title: msg('not made yet'), colour: '#c6c9c7' },
  { keys: ['no-shot', 'no-cutout'], title: msg('required, missing'), colour: '#ecedeb' },
];

const bars = (stacked: boolean, tick?: (value: number) => string): ChartOptions<'bar'> => ({
  indexAxis: 'y',
  responsive: true,
  maintainAspectRatio: false,
  animation: false,
  plugins: { legend: { display: stacked, position: 'bottom', labels: { boxWidth: 12 } } },
  scales: {
    x: {
      stacked,
      beginAtZero: true,
      grid: { color: '#e1e2e0' },
      ticks: { precision: 0, ...(tick ? { callback: (v) => tick(Number(v)) } : {}) },
    },
    y: { stacked, grid: { display: false } },
  },
});

/** A listing's checks in sum: how many pass on each marketplace, what fails most, and the bytes of each slot. */
export function ChecksScreen() {
  const { id = '' } = useParams();
  const { data: detail } = useRoute('GET /api/listings/:id', { params: { id } });
  const { data, error } = useRoute('GET /api/listings/:id/summary', { params: { id } });
  return (
    <>
      <TopBar trail={detail && <ListingTrail listing={detail.listing} title={msg('Checks')} />} />
      {error && <Trouble error={error} />}
      {!data && !error && <Waiting what={msg('the checks')} />}
      {data && <Summary data={data} />}
    </>
  );
}

function Summary({ data }: { data: BoardSummary }) {
  return (
    <main
      tabIndex={0}
      className="grid grow grid-cols-[minmax(0,1fr)] content-start gap-6 overflow-y-auto px-6 py-5"
    >
      <ByMarketplace marketplaces={data.marketplaces} />
      <div className="grid grid-cols-[minmax(0,1fr)] gap-8 md:grid-cols-2">
        <ByCheck checks={data.checks} />
        <BySlot slots={data.slots.filter((s) => s.count)} />
      </div>
    </main>
  );
}

const sum = (states: Record<string, number>, keys: string[]) =>
  keys.reduce((n, k) => n + (states[k] ?? 0), 0);

const BY_STATE: readonly TableColumn<BoardSummary['marketplaces'][number]>[] = [
  {
    id: 'marketplace',
    title: msg('Marketplace'),
    by: (m) => m.marketplace,
    className: 'font-medium',
    cell: (m) => m.marketplace,
  },
  ...STATES.map(({ keys, title }): TableColumn<BoardSummary['marketplaces'][number]> => ({
    id: title,
    title,
    by: (m) => sum(m.states, keys),
    figures: true,
    cell: (m) => sum(m.states, keys),
  })),
];

/** How the pictures of each marketplace stand, as bars and as a table. */
function ByMarketplace({ marketplaces }: Pick<BoardSummary, 'marketplaces'>) {
  return (
    <section aria-labelledby="by-marketplace">
      <h2 id="by-marketplace" className="font-display text-[17px] font-bold">
        {msg('Pictures by marketplace')}
      </h2>
      <div className="mt-2" style={{ height: 60 + marketplaces.length * 34 }}>
        <Bar
          aria-label={msg('Pictures by marketplace and state')}
          role="img"
          options={bars(true)}
          data={{
            labels: marketplaces.map((m) => m.marketplace),
            datasets: STATES.map((s) => ({
              label: s.title,
              backgroundColor: s.colour,
              data: marketplaces.map((m) => sum(m.states, s.keys)),
            })),
          }}
        />
      </div>
      <div className="overflow-x-auto">
        <Table
          label={msg('Pictures by marketplace and state')}
          className="mt-2 text-[12.5px]"
          room="narrow"
          columns={BY_STATE}
          rows={marketplaces}
          idOf={(m) => m.marketplace}
        />
      </div>
    </section>
  );
}

/** Which checks fail most, the waived ones apart. */
function ByCheck({ checks }: Pick<BoardSummary, 'checks'>) {
  return (
    <section aria-labelledby="by-check">
      <h2 id="by-check" className="font-display text-[17px] font-bold">
        {msg('What fails most')}
      </h2>
      {checks.length ? (
        <div className="mt-2" style={{ height: 70 + checks.length * 24 }}>
          <Bar
            aria-label={msg('Faults by check: {checks}', {
              checks: checks
                .map((c) =>
                  msg('{c} {stop} failed, {look} {look, plural, one {warning} other {warnings}}', {
                    c: c.title,
                    stop: c.stop,
                    look: c.look,
                  }),
                )
                .join('; '),
            })}
            role="img"
            options={bars(true)}
            data={{
              labels: checks.map((c) => c.title),
              datasets: [
                { label: msg('failed'), backgroundColor: '#d9472f', data: checks.map((c) => c.stop) },
                { label: msg('warning'), backgroundColor: '#b87503', data: checks.map((c) => c.look) },
                { label: msg('waived'), backgroundColor: '#c6c9c7', data: checks.map((c) => c.waived) },
              ],
            }}
          />
        </div>
      ) : (
        <p className="text-ink-2 mt-2">{msg('Nothing fails among the pictures that are made.')}</p>
      )}
    </section>
  );
}

/** Mean bytes of each slot's pictures; amber where the largest is close to the limit. */
function BySlot({ slots }: Pick<BoardSummary, 'slots'>) {
  return (
    <section aria-labelledby="by-slot">
      <h2 id="by-slot" className="font-display text-[17px] font-bold">
        {msg('Bytes by slot')}
      </h2>
      {slots.length ? (
        <div className="mt-2" style={{ height: 50 + slots.length * 24 }}>
          <Bar
            aria-label={msg('Mean bytes by slot: {slots}', {
              slots: slots.map((s) => `${s.title} ${bytesText(s.total / s.count)}`).join('; '),
            })}
            role="img"
            options={{
              ...bars(false, (v) => bytesText(v)),
              plugins: {
                legend: { display: false },
                tooltip: {
                  callbacks: {
                    label: (item) => {
                      const s = slots[item.dataIndex];
                      return msg('mean {mean}, largest {largest}, limit {limit}', {
                        mean: bytesText(s.total / s.count),
                        largest: bytesText(s.largest),
                        limit: bytesText(s.limit),
                      });
                    },
                  },
                },
              },
            }}
            data={{
              labels: slots.map((s) => `${s.marketplace}, ${s.title}`),
              datasets: [
                {
                  label: msg('mean bytes'),
                  backgroundColor: slots.map((s) => (s.largest > s.limit * 0.95 ? '#b87503' : '#12463a')),
                  data: slots.map((s) => Math.round(s.total / s.count)),
                },
              ],
            }}
          />
        </div>
      ) : (
        <p className="text-ink-2 mt-2">{msg('No picture is made yet.')}</p>
      )}
    </section>
  );
}
