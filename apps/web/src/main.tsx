import { createRoot } from 'react-dom/client';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import './app.css';
import { Shell } from './ui/shell';
import { BrandScreen } from './screens/brand/brand-screen';
import { TemplatesScreen } from './screens/templates/templates-screen';
import { IdeasScreen } from './screens/ideas/ideas-screen';
import { CutoutScreen } from './screens/cutout/cutout-screen';
import { DeliveriesScreen } from './screens/deliveries/deliveries-screen';
import { DeliveryScreen } from './screens/deliveries/delivery-screen';
import { LibraryScreen } from './screens/library/library-screen';
import { SurveyScreen } from './screens/library/survey-screen';
import { BoardScreen } from './screens/board/board-screen';
import { ListingsScreen } from './screens/listings/listings-screen';
import { PhotosScreen } from './screens/photos/photos-screen';
import { ProductsScreen } from './screens/products/products-screen';
import { ReviewScreen } from './screens/review/review-screen';
import { DataScreen } from './screens/data/data-screen';
import { ChecksScreen } from './screens/checks/checks-screen';
import { EncodingScreen } from './screens/encoding/encoding-screen';
import { CompareScreen } from './screens/compare/compare-screen';
import { RecipeScreen } from './screens/recipes/recipe-screen';
import { RecipesScreen } from './screens/recipes/recipes-screen';
import { SheetScreen } from './screens/spec-sheets/sheet-screen';
import { SpecSheetsScreen } from './screens/spec-sheets/spec-sheets-screen';
import { StageScreen } from './screens/stage/stage-screen';
import { NotFound } from './ui/states';

const router = createBrowserRouter([
  {
    element: <Shell />,
    children: [
      { path: '/', element: <Navigate to="/listings" replace /> },
      { path: '/listings', element: <ListingsScreen /> },
      { path: '/listings/:id', element: <BoardScreen /> },
      { path: '/photos', element: <PhotosScreen /> },
      { path: '/photos/review', element: <ReviewScreen /> },
      { path: '/products', element: <ProductsScreen /> },
      { path: '/products/:id', element: <DataScreen /> },
      { path: '/library', element: <LibraryScreen /> },
      { path: '/library/scenes/:id', element: <SurveyScreen /> },
      { path: '/brand', element: <BrandScreen /> },
      { path: '/templates', element: <TemplatesScreen /> },
      { path: '/listings/:id/ideas', element: <IdeasScreen /> },
      { path: '/spec-sheets', element: <SpecSheetsScreen /> },
      { path: '/spec-sheets/:id', element: <SheetScreen /> },
      { path: '/recipes', element: <RecipesScreen /> },
      { path: '/recipes/:id', element: <RecipeScreen /> },
      { path: '/listings/:id/checks', element: <ChecksScreen /> },
      { path: '/listings/:id/encoding', element: <EncodingScreen /> },
      { path: '/listings/:id/compare', element: <CompareScreen /> },
      { path: '/deliveries', element: <DeliveriesScreen /> },
      { path: '/deliveries/:id', element: <DeliveryScreen /> },
      { path: '/photos/:id/cutout', element: <CutoutScreen /> },
      { path: '/shots/:id', element: <StageScreen /> },
      { path: '*', element: <NotFound /> },
    ],
  },
]);

createRoot(document.getElementById('root')!).render(<RouterProvider router={router} />);
