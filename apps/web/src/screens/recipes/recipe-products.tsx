import type { AnswerOf } from '@scenograph/contract';
import { useMemo } from 'react';
import { Link } from 'react-router';
import type { RecipeStep } from '@scenograph/core/recipe/recipe';
import type { RecipeDetail } from '../../api/client';
import { buttonClass } from '../../ui/controls';
import { StatusMark, type Mark } from '../../ui/status';
import { Table, type TableColumn } from '../../ui/table';
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
  const columns = useMemo((): TableColumn<Row>[] => {
    const result = (step: RecipeStep): TableColumn<Row> => ({
      id: step.id,
      title: <span className="block max-w-36 truncate">{step.title}</span>,
      className: 'max-w-36 text-[12px]',
      hint: (row) => row.results[step.id]?.says ?? undefined,
      cell: (row) => <Result result={row.results[step.id]} />,
    });
    return [
      {
        id: 'product',
        title: msg('Product'),
        by: (row) => row.title,
        className: 'font-medium whitespace-nowrap',
        cell: (row) => row.title,
      },
      ...steps.map(result),
      { id: 'results', title: msg('Results'), cell: (row) => <Made results={row.results} /> },
    ];
  }, [steps]);
  const rows = useMemo(
    () =>
      products.map((p) => ({
        ...p,
        results: recipe.products.find((r) => r.productId === p.id)?.steps ?? {},
      })),
    [products, recipe.products],
  );
  return (
    <Table
      label={msg('Products')}
      room="narrow"
      className="mt-5"
      columns={columns}
      rows={rows}
      idOf={(row) => row.id}
      choice={{ chosen, onChoose: onChosen, all: msg('Choose all products'), nameOf: (row) => row.title }}
    />
  );
}

interface Row {
  id: string;
  title: string;
  results: Record<string, StepResult>;
}

function Made({ results }: { results: Row['results'] }) {
  const made: Record<string, string> = Object.assign({}, ...Object.values(results).map((s) => s.made));
  return (
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
  );
}

function Result({ result }: { result: StepResult | undefined }) {
  if (!result) return <span className="text-ink-2">{msg('not run')}</span>;
  const says = { waiting: msg('queued'), working: msg('under way') }[result.state as 'waiting' | 'working'];
  return (
    <span className="flex items-center gap-1.5">
      <StatusMark mark={MARKS[result.state]} size={9} />
      <span className="truncate">{says ?? result.says ?? result.state}</span>
    </span>
  );
}
