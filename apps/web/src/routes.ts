import type { ComponentType } from 'react';
import type { PlaceLink } from './ui/places';

/** One screen: where it is, what it is called, how it is loaded, and how it is reached from elsewhere. */
export interface ScreenRoute {
  path: string;
  /** In the browser's tab. */
  title: string;
  load(): Promise<ComponentType>;
  /** Its name in the bar of every screen; left out for screens that are reached through others. */
  label?: string;
  /** Further words by which the command menu finds it. */
  words?: string;
}

/** Every screen of the application, those of the bar in its order. */
export const SCREENS: readonly ScreenRoute[] = [
  {
    path: '/listings',
    title: 'Listings',
    label: 'Listings',
    load: async () => (await import('./screens/listings/listings-screen')).ListingsScreen,
  },
  {
    path: '/photos',
    title: 'Photos',
    label: 'Photos',
    load: async () => (await import('./screens/photos/photos-screen')).PhotosScreen,
  },
  {
    path: '/products',
    title: 'Products',
    label: 'Products',
    words: 'variants, prices, data',
    load: async () => (await import('./screens/products/products-screen')).ProductsScreen,
  },
  {
    path: '/library',
    title: 'Library',
    label: 'Library',
    words: 'scenes, mockups, artwork, logos',
    load: async () => (await import('./screens/library/library-screen')).LibraryScreen,
  },
  {
    path: '/brand',
    title: 'Brand kit',
    label: 'Brand kit',
    words: 'colours, fonts',
    load: async () => (await import('./screens/brand/brand-screen')).BrandScreen,
  },
  {
    path: '/templates',
    title: 'Templates',
    label: 'Templates',
    load: async () => (await import('./screens/templates/templates-screen')).TemplatesScreen,
  },
  {
    path: '/recipes',
    title: 'Recipes',
    label: 'Recipes',
    words: 'batch, many at once',
    load: async () => (await import('./screens/recipes/recipes-screen')).RecipesScreen,
  },
  {
    path: '/spec-sheets',
    title: 'Spec sheets',
    label: 'Spec sheets',
    words: 'marketplaces, slots, sizes, rules',
    load: async () => (await import('./screens/spec-sheets/spec-sheets-screen')).SpecSheetsScreen,
  },
  {
    path: '/deliveries',
    title: 'Deliveries',
    label: 'Deliveries',
    words: 'exports, ZIP files',
    load: async () => (await import('./screens/deliveries/deliveries-screen')).DeliveriesScreen,
  },
  {
    path: '/listings/:id',
    title: 'Slot board',
    load: async () => (await import('./screens/board/board-screen')).BoardScreen,
  },
  {
    path: '/listings/:id/ideas',
    title: 'Ideas wall',
    load: async () => (await import('./screens/ideas/ideas-screen')).IdeasScreen,
  },
  {
    path: '/listings/:id/checks',
    title: 'Checks',
    load: async () => (await import('./screens/checks/checks-screen')).ChecksScreen,
  },
  {
    path: '/listings/:id/encoding',
    title: 'Encoding',
    load: async () => (await import('./screens/encoding/encoding-screen')).EncodingScreen,
  },
  {
    path: '/listings/:id/compare',
    title: 'Compare',
    load: async () => (await import('./screens/compare/compare-screen')).CompareScreen,
  },
  {
    path: '/photos/review',
    title: 'Review wall',
    words: 'accept cutouts',
    load: async () => (await import('./screens/review/review-screen')).ReviewScreen,
  },
  {
    path: '/photos/:id/cutout',
    title: 'Cutout',
    load: async () => (await import('./screens/cutout/cutout-screen')).CutoutScreen,
  },
  {
    path: '/products/:id',
    title: 'Product data',
    load: async () => (await import('./screens/data/data-screen')).DataScreen,
  },
  {
    path: '/library/scenes/:id',
    title: 'Survey',
    load: async () => (await import('./screens/library/survey-screen')).SurveyScreen,
  },
  {
    path: '/spec-sheets/:id',
    title: 'Spec sheet',
    load: async () => (await import('./screens/spec-sheets/sheet-screen')).SheetScreen,
  },
  {
    path: '/recipes/:id',
    title: 'Recipe',
    load: async () => (await import('./screens/recipes/recipe-screen')).RecipeScreen,
  },
  {
    path: '/deliveries/:id',
    title: 'Delivery',
    load: async () => (await import('./screens/deliveries/delivery-screen')).DeliveryScreen,
  },
  {
    path: '/shots/:id',
    title: 'Stage',
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
