import { msg } from '../../language/language';

/** What workers do, by the contract's names. */
export const WORK = {
  cutouts: msg('Cutouts'),
  recipes: msg('Steps of recipes'),
  pictures: msg('Pictures of deliveries'),
} as const;
