import Joi from 'joi';
import { tidySchema, type Tidy } from '../retouch/tidy';

interface StepBase {
  /** Unique in its recipe. */
  id: string;
  title: string;
  /** Steps that must be done before; steps with the same ones before them stand side by side. */
  after: string[];
}

/** Evens out the photos. */
export interface TidyStep extends StepBase {
  kind: 'tidy';
  tidy: Tidy;
}
/** Cuts the product out of every variant's photo. */
export interface CutOutStep extends StepBase {
  kind: 'cut-out';
}
/** How the product sits wherever it is placed from then on. */
export interface ArrangeStep extends StepBase {
  kind: 'arrange';
  pose: 'stand' | 'float' | 'flat';
}
/** A shot of the product: alone on white, in a scene of the library, or in a template. */
export interface WhiteStep extends StepBase {
  kind: 'white';
}
export interface StageStep extends StepBase {
  kind: 'stage';
  scene: string;
}
export interface TemplateStep extends StepBase {
  kind: 'template';
  template: string;
}
/** Gives the slots of these sheets to the shots made before, by rule. */
export interface FitStep extends StepBase {
  kind: 'fit';
  sheets: string[];
}
/** Delivers what has changed. */
export interface DeliverStep extends StepBase {
  kind: 'deliver';
}

export type RecipeStep =
  TidyStep | CutOutStep | ArrangeStep | WhiteStep | StageStep | TemplateStep | FitStep | DeliverStep;

export const STEP_TITLES: Record<RecipeStep['kind'], string> = {
  tidy: 'Tidy the photos',
  'cut-out': 'Cut out',
  arrange: 'Arrange',
  white: 'Stage on white',
  stage: 'Stage in a scene',
  template: 'Fill a template',
  fit: 'Fit the slots',
  deliver: 'Deliver',
};

/** Steps that make a shot. */
export const MAKES_SHOT: ReadonlySet<RecipeStep['kind']> = new Set(['white', 'stage', 'template']);

const id = Joi.string()
  .pattern(/^[a-z0-9-]+$/)
  .max(60)
  .required();
const step = (kind: RecipeStep['kind'], own: Joi.PartialSchemaMap = {}) => ({
  is: kind,
  then: Joi.object({
    id,
    kind: Joi.string().required(),
    title: Joi.string().trim().min(1).max(80).required(),
    after: Joi.array().items(Joi.string().max(60)).max(40).unique().required(),
    ...own,
  }),
});

const stepsSchema = Joi.array()
  .items(
    Joi.alternatives().conditional('.kind', {
      switch: [
        step('tidy', { tidy: tidySchema.required() }),
        step('cut-out'),
        step('arrange', { pose: Joi.string().valid('stand', 'float', 'flat').required() }),
        step('white'),
        step('stage', { scene: Joi.string().uuid().required() }),
        step('template', { template: Joi.string().max(80).required() }),
        step('fit', { sheets: Joi.array().items(Joi.string().max(60)).min(1).max(40).unique().required() }),
        step('deliver'),
      ],
      otherwise: Joi.forbidden().messages({
        'any.unknown': `{{#label}} is of an unknown kind; the kinds are ${Object.keys(STEP_TITLES).join(', ')}`,
      }),
    }),
  )
  .min(1)
  .max(40)
  .unique('id')
  .required();

/**
 * Reads a recipe's steps and puts them in an order in which each comes after those it waits for. Throws a sentence for
 * a wrong step, one that waits for a step that is not there, or steps that wait for each other.
 */
export function readSteps(value: unknown): RecipeStep[] {
  const { value: steps, error } = stepsSchema.validate(value);
  if (error) throw new Error(`These are not the steps of a recipe: ${error.message}.`);
  return inOrder(steps as RecipeStep[]);
}

function inOrder(steps: RecipeStep[]): RecipeStep[] {
  const known = new Set(steps.map((s) => s.id));
  for (const s of steps)
    for (const before of s.after)
      if (!known.has(before))
        throw new Error(`"${s.title}" waits for a step that is not there any more. Choose another.`);
  const ordered: RecipeStep[] = [];
  const placed = new Set<string>();
  let rest = steps;
  while (rest.length) {
    const ready = rest.filter((s) => s.after.every((a) => placed.has(a)));
    if (!ready.length)
      throw new Error(
        `${rest.map((s) => `"${s.title}"`).join(' and ')} wait for each other. Break the circle.`,
      );
    ready.forEach((s) => placed.add(s.id));
    ordered.push(...ready);
    rest = rest.filter((s) => !placed.has(s.id));
  }
  return ordered;
}

/** All steps that a step comes after, near and far. */
export function stepsBefore(steps: readonly RecipeStep[], id: string): RecipeStep[] {
  const found = new Set<string>();
  const walk = (of: string) => {
    for (const a of steps.find((s) => s.id === of)?.after ?? [])
      if (!found.has(a)) {
        found.add(a);
        walk(a);
      }
  };
  walk(id);
  return steps.filter((s) => found.has(s.id));
}

/**
 * Keys of a recipe's steps for one product: a step is done again when its settings, a step before it, or what it takes
 * from the product has changed. A later step never makes an earlier one run again.
 * @param takes what of the product and the library a step depends on, as JSON
 */
export function stepKeys(
  steps: readonly RecipeStep[],
  takes: (step: RecipeStep) => unknown,
  digest: (text: string) => string,
): Map<string, string> {
  const keys = new Map<string, string>();
  for (const step of steps) {
    const { title: _, ...settings } = step;
    keys.set(step.id, digest(JSON.stringify([settings, takes(step), step.after.map((a) => keys.get(a))])));
  }
  return keys;
}
