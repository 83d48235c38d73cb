import type { ComponentType } from 'react';
import type { RouteName } from '@scenograph/contract';
import type { PlaceLink } from './ui/places';
import { msg } from './language/language';

/** One screen: where it is, what it is called, how it is loaded, and how it is reached from elsewhere. */
export interface ScreenRoute {
  path: string;
  /** In the browser's tab. */
  title: string;
  load(): Promise<ComponentType>;
  /** What it asks the server first: asked while its code is on its way, with the parameters of its path. */
  needs?: readonly (RouteName & `GET ${string}`)[];
  /** Its name in the bar of every screen; left out for screens that are reached through others. */
  label?: string;
  /** Further words by which the command menu finds it. */
  words?: string;
}

/** Every screen of the application, those of the bar in its order. */
export const SCREENS: readonly ScreenRoute[] = [
  {
    path: '/listings',
    title: msg('Listings'),
    label: msg('Listings'),
    load: async () => (await import('./screens/listings/listings-screen')).ListingsScreen,
  },
  {
    path: '/photos',
    title: msg('Photos'),
    label: msg('Photos'),
    needs: ['GET /api/photos'],
    load: async () => (await import('./screens/photos/photos-screen')).PhotosScreen,
  },
  {
    path: '/products',
    title: msg('Products'),
    label: msg('Products'),
    words: msg('variants, prices, data'),
    load: async () => (await import('./screens/products/products-screen')).ProductsScreen,
  },
  {
    path: '/library',
    title: msg('Library'),
    label: msg('Library'),
    words: msg('scenes, mockups, artwork, logos'),
    needs: ['GET /api/scenes', 'GET /api/pictures'],
    load: async () => (await import('./screens/library/library-screen')).LibraryScreen,
  },
  {
    path: '/brand',
    title: msg('Brand kit'),
    label: msg('Brand kit'),
    words: msg('colours, fonts'),
    load: async () => (await import('./screens/brand/brand-screen')).BrandScreen,
  },
  {
    path: '/templates',
    title: msg('Templates'),
    label: msg('Templates'),
    load: async () => (await import('./screens/templates/templates-screen')).TemplatesScreen,
  },
  {
    path: '/recipes',
    title: msg('Recipes'),
    label: msg('Recipes'),
    words: msg('batch, many at once'),
    needs: ['GET /api/recipes', 'GET /api/scenes', 'GET /api/spec-sheets'],
    load: async () => (await import('./screens/recipes/recipes-screen')).RecipesScreen,
  },
  {
    path: '/spec-sheets',
    title: msg('Spec sheets'),
    label: msg('Spec sheets'),
    words: msg('marketplaces, slots, sizes, rules'),
    needs: ['GET /api/spec-sheets'],
    load: async () => (await import('./screens/spec-sheets/spec-sheets-screen')).SpecSheetsScreen,
  },
  {
    path: '/deliveries',
    title: msg('Deliveries'),
    label: msg('Deliveries'),
    words: 'exports, ZIP files',
    needs: ['GET /api/deliveries'],
    load: async () => (await import('./screens/deliveries/deliveries-screen')).DeliveriesScreen,
  },
  {
    path: '/new-picture',
    title: msg('New picture'),
    words: msg('any size, millimetres, banner, poster, postcard, A4'),
    load: async () => (await import('./screens/new-picture/new-picture-screen')).NewPictureScreen,
  },
  {
    path: '/server',
    title: msg('Server'),
    words: msg('health, workers, failed work, storage'),
    needs: ['GET /api/work', 'GET /api/storage'],
    load: async () => (await import('./screens/server/server-screen')).ServerScreen,
  },
  {
    path: '/listings/:id',
    title: msg('Slot board'),
    needs: ['GET /api/listings/:id', 'GET /api/listings/:id/board'],
    load: async () => (await import('./screens/board/board-screen')).BoardScreen,
  },
  {
    path: '/listings/:id/ideas',
    title: msg('Ideas wall'),
    load: async () => (await import('./screens/ideas/ideas-screen')).IdeasScreen,
  },
  {
    path: '/listings/:id/checks',
    title: msg('Checks'),
    needs: ['GET /api/listings/:id', 'GET /api/listings/:id/summary'],
    load: async () => (await import('./screens/checks/checks-screen')).ChecksScreen,
  },
  {
    path: '/listings/:id/encoding',
    title: msg('Encoding'),
    load: async () => (await import('./screens/encoding/encoding-screen')).EncodingScreen,
  },
  {
    path: '/listings/:id/compare',
    title: msg('Compare'),
    load: async () => (await import('./screens/compare/compare-screen')).CompareScreen,
  },
  {
    path: '/photos/review',
    title: msg('Review wall'),
    words: msg('accept cutouts'),
    needs: ['GET /api/photos'],
    load: async () => (await import('./screens/review/review-screen')).ReviewScreen,
  },
  {
    path: '/photos/:id/cutout',
    title: msg('Cutout'),
    needs: ['GET /api/photos/:id', 'GET /api/photos/:id/desk'],
    load: async () => (await import('./screens/cutout/cutout-screen')).CutoutScreen,
  },
  {
    path: '/products/:id',
    title: msg('Product data'),
    load: async () => (await import('./screens/data/data-screen')).DataScreen,
  },
  {
    path: '/library/scenes/:id',
    title: msg('Survey'),
    load: async () => (await import('./screens/library/survey-screen')).SurveyScreen,
  },
  {
    path: '/spec-sheets/:id',
    title: msg('Spec sheet'),
    load: async () => (await import('./screens/spec-sheets/sheet-screen')).SheetScreen,
  },
  {
    path: '/recipes/:id',
    title: msg('Recipe'),
    load: async () => (await import('./screens/recipes/recipe-screen')).RecipeScreen,
  },
  {
    path: '/deliveries/:id',
    title: msg('Delivery'),
    needs: ['GET /api/deliveries/:id'],
    load: async () => (await import('./screens/deliveries/delivery-screen')).DeliveryScreen,
  },
  {
    path: '/shots/:id',
    title: msg('Stage'),
    needs: ['GET /api/shots/:id'],
    load: async () => (await import('./screens/stage/stage-screen')).StageScreen,
  },
];

/** The screens that can be gone to without an id: those of the bar first, as they stand there. */
export function placeLinks(screens: readonly ScreenRoute[] = SCREENS): PlaceLink[] {
  return screens
    .filter((s) => !s.path.includes(':'))
    .map(({ path, title, label, words }) => ({
      path,
      label: label ?? '',
      title: words ? `${title} (${words})` : title,
    }));
}
