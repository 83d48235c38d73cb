import { Copy, Download, Plus } from 'lucide-react';
import { Link, useNavigate } from 'react-router';
import { readSlot, type Slot } from '@scenograph/core/spec/slot';
import { refresh, call, useRoute } from '../../api/client';
import { Button, buttonClass } from '../../ui/controls';
import { FileButton } from '../../ui/file-button';
import { say } from '../../ui/notices';
import { Trouble, Waiting } from '../../ui/states';
import { bytesText } from '../../ui/status';
import { TopBar } from '../../ui/top-bar';

const percent = (share: number) => `${Math.round(share * 1000) / 10} %`;

function coverageText({ coverage: { min, max } }: Slot): string {
  if (min !== null && max !== null) return `${percent(min)} to ${percent(max)}`;
  return min !== null ? `${percent(min)} or more` : max !== null ? `${percent(max)} or less` : 'any';
}

export function SpecSheetsScreen() {
  const { data, error } = useRoute('GET /api/spec-sheets');
  const navigate = useNavigate();
  const add = async (sheet: object) => {
    try {
      const made = await call('POST /api/spec-sheets', { body: sheet });
      refresh('/api/spec-sheets');
      void navigate(`/spec-sheets/${made.id}`);
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };
  const bringIn = async ([file]: File[]) => {
    let value: object;
    try {
      value = JSON.parse(await file.text()) as object;
    } catch {
      return say('stop', `"${file.name}" is not JSON. Choose a spec sheet that was exported here.`);
    }
    await add(value);
  };
  const copy = async (id: string) => {
    const { sheet } = await call('GET /api/spec-sheets/:sheet', { params: { sheet: id } });
    await add({ ...sheet, marketplace: `${sheet.marketplace}, copy`.slice(0, 80) });
  };
  const fresh = () =>
    add({
      id: 'new-marketplace',
      marketplace: 'New marketplace',
      slots: [
        readSlot({
          id: 'main',
          title: 'Main',
          width: 2000,
          height: 2000,
          formats: ['jpeg'],
          maxBytes: 2 * 1024 * 1024,
          background: { kind: 'any' },
        }),
      ],
    });
  return (
    <>
      <TopBar />
      <main tabIndex={0} className="grow overflow-y-auto px-5 pt-4 pb-10">
        <div className="flex items-center gap-2">
          <h1 className="font-display mr-auto text-[22px] font-bold">Spec sheets</h1>
          <FileButton
            title="Import JSON"
            label="Spec sheet as JSON"
            accept=".json,application/json"
            onFiles={(f) => void bringIn(f)}
          />
          <Button tone="main" onClick={() => void fresh()}>
            <Plus size={14} aria-hidden /> New spec sheet
          </Button>
        </div>
        {error && <Trouble error={error} />}
        {!data && !error && <Waiting what="the spec sheets" />}
        {data?.map((sheet) => (
          <section key={sheet.id} className="mt-4" aria-label={sheet.marketplace}>
            <div className="bg-spruce flex items-center gap-3 px-3 py-1.5 text-white">
              <h2 className="font-semibold whitespace-nowrap">{sheet.marketplace}</h2>
              <p className="min-w-0 grow truncate text-white/80">{sheet.about}</p>
              <span className="measure text-white/80 whitespace-nowrap">version {sheet.version}</span>
              <Link
                to={`/spec-sheets/${sheet.id}`}
                className={buttonClass()}
                aria-label={`Edit ${sheet.marketplace}`}
              >
                Edit
              </Link>
              <button
                type="button"
                title="Copy and adapt"
                aria-label={`Copy ${sheet.marketplace}`}
                onClick={() => void copy(sheet.id)}
                className="p-1 text-white/80 hover:text-white"
              >
                <Copy size={15} aria-hidden />
              </button>
              <a
                href={`/api/spec-sheets/${sheet.id}/sheet.json`}
                download
                title="Export as JSON"
                aria-label={`Export ${sheet.marketplace} as JSON`}
                className="p-1 text-white/80 hover:text-white"
              >
                <Download size={15} aria-hidden />
              </a>
            </div>
            <table className="border-line bg-card w-full border">
              <thead>
                <tr className="border-line text-ink-2 border-b text-left text-[12px]">
                  {[
                    'Slot',
                    'Pixels',
                    'Formats',
                    'Bytes',
                    'Background',
                    'Coverage',
                    'Margin',
                    'Text, logos',
                    'File name',
                  ].map((t) => (
                    <th key={t} className="px-3 py-1.5 font-medium whitespace-nowrap">
                      {t}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {sheet.slots.map((slot) => (
                  <tr key={slot.id} className="border-line border-b last:border-b-0">
                    <td className="px-3 py-1.5" title={slot.note}>
                      <span className="font-semibold">{slot.title}</span>
                      {!slot.required && <span className="text-ink-2"> optional</span>}
                    </td>
                    <td className="measure px-3 py-1.5 whitespace-nowrap">
                      {slot.width} x {slot.height}
                    </td>
                    <td className="measure px-3 py-1.5">{slot.formats.join(', ')}</td>
                    <td className="measure px-3 py-1.5 whitespace-nowrap">{bytesText(slot.maxBytes)}</td>
                    <td className="px-3 py-1.5 whitespace-nowrap">
                      {slot.background.kind === 'any' ? (
                        'any'
                      ) : (
                        <>
                          {slot.background.kind === 'white' ? 'pure white' : 'clear'}{' '}
                          <span className="measure text-ink-2">{percent(slot.background.minShare)}</span>
                        </>
                      )}
                    </td>
                    <td className="measure px-3 py-1.5 whitespace-nowrap">{coverageText(slot)}</td>
                    <td className="measure px-3 py-1.5">{percent(slot.marginShare)}</td>
                    <td className="px-3 py-1.5">{slot.overlays === 'allowed' ? 'allowed' : 'none'}</td>
                    <td className="measure text-ink-2 px-3 py-1.5">{slot.fileName}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
        ))}
      </main>
    </>
  );
}
