import type { Slot, SpecSheet } from '@scenograph/core/spec/slot';
import { useServer } from '../../api/client';
import { Trouble, Waiting } from '../../ui/states';
import { bytesText } from '../../ui/status';
import { TopBar } from '../../ui/top-bar';

const percent = (share: number) => `${Math.round(share * 1000) / 10} %`;

function coverageText({ coverage: { min, max } }: Slot): string {
  if (min !== null && max !== null) return `${percent(min)} to ${percent(max)}`;
  return min !== null ? `${percent(min)} or more` : max !== null ? `${percent(max)} or less` : 'any';
}

export function SpecSheetsScreen() {
  const { data, error } = useServer<SpecSheet[]>('/api/spec-sheets');
  return (
    <>
      <TopBar />
      <main tabIndex={0} className="grow overflow-y-auto px-5 pt-4 pb-10">
        <h1 className="font-display text-[22px] font-bold">Spec sheets</h1>
        {error && <Trouble error={error} />}
        {!data && !error && <Waiting what="the spec sheets" />}
        {data?.map((sheet) => (
          <section key={sheet.id} className="mt-4" aria-label={sheet.marketplace}>
            <table className="border-line bg-card w-full border">
              <caption className="bg-spruce px-3 py-1.5 text-left text-white">
                <span className="font-semibold">{sheet.marketplace}</span>{' '}
                <span className="text-white/80">{sheet.about}</span>
                <span className="measure float-right text-white/80">version {sheet.version}</span>
              </caption>
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
                      {slot.background.kind === 'white' ? (
                        <>
                          pure white{' '}
                          <span className="measure text-ink-2">{percent(slot.background.minShare)}</span>
                        </>
                      ) : (
                        'any'
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
