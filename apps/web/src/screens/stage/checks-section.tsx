import { BASE } from '@scenograph/core/shot/edit';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { applyFix } from '@scenograph/core/spec/checks/index';
import type { CheckResult } from '@scenograph/core/spec/checks/check';
import { Button } from '../../ui/controls';
import { StatusMark } from '../../ui/status';
import { frameSlot } from '../listings/cell-picture';
import { Section } from './section';
import type { FedSlot } from './size-strip';
import { useStage } from './store';
import { msg } from '../../language/language';

/** How the checks stand in a few words, and the colour of these. */
export function checksSummary(results: CheckResult[] | null): { tone?: string; words: string } {
  if (!results) return { words: 'measuring' };
  const count = (verdict: CheckResult['verdict']) => results.filter((r) => r.verdict === verdict).length;
  const [stops, looks] = [count('stop'), count('look')];
  const words = [
    stops && msg('{stops} failed', { stops }),
    looks && msg('{looks} {looks, plural, one {warning} other {warnings}}', { looks }),
  ];
  return {
    tone: stops ? 'text-coral-ink' : looks ? 'text-amber-ink' : undefined,
    words: words.filter(Boolean).join(', ') || msg('all pass'),
  };
}

/** What was measured on the picture that is shown; a fix is a step on the stage. */
export function ChecksSection({
  results,
  resolved,
  active,
}: {
  results: CheckResult[] | null;
  resolved: ResolvedShot;
  active: FedSlot | null;
}) {
  const edit = useStage((s) => s.edit);
  const select = useStage((s) => s.select);
  const { tone, words } = checksSummary(results);
  const fix = ({ check, fix: offered, about }: CheckResult) =>
    edit(offered!.title, (s) =>
      applyFix(check, s, resolved, active?.key ?? BASE, active?.slot ?? frameSlot(resolved), about),
    );
  return (
    <Section n={6} id="checks" title={msg('Checks')} tone={tone} summary={words}>
      {!active && (
        <p className="text-ink-2 mb-2">
          {msg(
            'The base has no specification; its words are watched over. Choose a size below the stage to measure it against its own.',
          )}
        </p>
      )}
      {results && (
        <ul className="grid gap-2.5">
          {results.map((r, i) => (
            <CheckRow
              key={`${r.check}-${i}`}
              result={r}
              onShow={() => r.about && select(r.about.id)}
              onFix={() => fix(r)}
            />
          ))}
        </ul>
      )}
    </Section>
  );
}

function CheckRow({ result, onShow, onFix }: { result: CheckResult; onShow(): void; onFix(): void }) {
  return (
    <li className="flex gap-2">
      <span className="pt-1">
        <StatusMark mark={result.verdict} />
      </span>
      <div className="min-w-0 grow">
        <p className="flex justify-between gap-2">
          <span className="font-medium">{msg(result.title)}</span>
          <span className="measure text-right">{result.measured}</span>
        </p>
        <p className="text-ink-2 flex justify-between gap-2 text-[12px]">
          <span>{msg('limit')}</span> <span className="measure text-right">{result.limit}</span>
        </p>
        {result.verdict !== 'pass' && <p className="mt-0.5 text-[12.5px]">{result.sentence}</p>}
        {result.about && result.verdict !== 'pass' && (
          <Button tone="quiet" className="mt-1.5 mr-1.5" onClick={onShow}>
            {msg('Choose it')}
          </Button>
        )}
        {result.fix && (
          <Button className="mt-1.5" onClick={onFix}>
            {msg(result.fix.title)}
          </Button>
        )}
      </div>
    </li>
  );
}
