import type { AnswerOf } from '@scenograph/contract';
import { Link } from 'react-router';
import type { RecipeStep } from '@scenograph/core/recipe/recipe';
import type { RecipeDetail } from '../../api/client';
import { buttonClass, allTicked, Checkbox } from '../../ui/controls';
import { StatusMark, type Mark } from '../../ui/status';
import { msg } from '../../language/language';

type StepResult = RecipeDetail['products'][number]['steps'][string];

const MARKS: Record<StepResult['state'], Mark> = {
  waiting: 'working',
  working: 'working',
  done: 'pass',
  failed: 'stop',
  cancelled: 'missing',
};

/** The products that a recipe is run for, and what each step has made of each. */
export function RecipeProducts({
  recipe,
  steps,
  products,
  chosen,
  onChosen,
}: {
  recipe: RecipeDetail;
  steps: readonly RecipeStep[];
  products: AnswerOf<'GET /api/products/titles'>;
  chosen: readonly string[];
  onChosen(ids: string[]): void;
}) {
  return (
    <table className="border-line bg-card mt-5 border">
      <thead>
        <tr className="border-line text-ink-2 border-b text-left text-[12px]">
          <th className="px-3 py-2 font-medium">
            <label className="flex items-center gap-2">
              <Checkbox
                checked={allTicked(chosen.length, products.length)}
                onChange={(on) => onChosen(on ? products.map((p) => p.id) : [])}
              />
              {msg('Product')}
            </label>
          </th>
          {steps.map((s) => (
            <th key={s.id} className="max-w-36 truncate px-3 py-2 font-medium">
              {s.title}
            </th>
          ))}
          <th className="px-3 py-2 font-medium">{msg('Results')}</th>
        </tr>
      </thead>
      <tbody>
        {products.map((p) => (
          <ProductRow
            key={p.id}
            title={p.title}
            results={recipe.products.find((r) => r.productId === p.id)?.steps ?? {}}
            steps={steps}
            on={chosen.includes(p.id)}
            onTurn={(on) => onChosen(on ? [...chosen, p.id] : chosen.filter((x) => x !== p.id))}
          />
        ))}
      </tbody>
    </table>
  );
}

function ProductRow({
  title,
  results,
  steps,
  on,
  onTurn,
}: {
  title: string;
  results: Record<string, StepResult>;
  steps: readonly RecipeStep[];
  on: boolean;
  onTurn(on: boolean): void;
}) {
  const made: Record<string, string> = Object.assign({}, ...Object.values(results).map((s) => s.made));
  return (
    <tr className="border-line border-b last:border-b-0">
      <td className="px-3 py-1.5">
        <label className="flex items-center gap-2 whitespace-nowrap">
          <Checkbox checked={on} onChange={onTurn} />
          <span className="font-medium">{title}</span>
        </label>
      </td>
      {steps.map((s) => (
        <ResultCell key={s.id} result={results[s.id]} />
      ))}
      <td className="px-3 py-1.5">
        <span className="flex gap-1.5">
          {made.listing && (
            <Link to={`/listings/${made.listing}`} className={buttonClass()}>
              {msg('Board')}
            </Link>
          )}
          {made.delivery && (
            <Link to={`/deliveries/${made.delivery}`} className={buttonClass()}>
              {msg('Delivery')}
            </Link>
          )}
        </span>
      </td>
    </tr>
  );
}

function ResultCell({ result }: { result: StepResult | undefined }) {
  const says = { waiting: msg('queued'), working: msg('under way') }[result?.state as 'waiting' | 'working'];
  return (
    <td className="max-w-36 px-3 py-1.5 text-[12px]" title={result?.says ?? undefined}>
      {result ? (
        <span className="flex items-center gap-1.5">
          <StatusMark mark={MARKS[result.state]} size={9} />
          <span className="truncate">{says ?? result.says ?? result.state}</span>
        </span>
      ) : (
        <span className="text-ink-2">{msg('not run')}</span>
      )}
    </td>
  );
}
