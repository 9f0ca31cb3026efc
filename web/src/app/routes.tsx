import { Link, type RouteObject } from 'react-router';
import { paths } from '../parts/paths.js';
import { Empty } from '../ui/empty.js';
import { ViewError } from './view-error.js';

/** Each view is loaded when it is first opened. */
export const routes: RouteObject[] = [
  {
    path: '/',
    lazy: async () => ({ Component: (await import('../views/jobs/jobs.js')).JobsView }),
    HydrateFallback: Opening,
    ErrorBoundary: ViewError,
  },
  {
    path: '/jobs/:jobId',
    lazy: async () => ({ Component: (await import('./job-frame.js')).JobFrame }),
    HydrateFallback: Opening,
    ErrorBoundary: ViewError,
    // A view that fails leaves the frame around it standing.
    children: views([
      { index: true, lazy: async () => ({ Component: (await import('../views/board/board.js')).BoardView }) },
      {
        path: 'brief',
        lazy: async () => ({ Component: (await import('../views/brief/brief.js')).BriefView }),
      },
      {
        path: 'house',
        lazy: async () => ({ Component: (await import('../views/house/house.js')).HouseView }),
      },
      {
        path: 'box/:boxId',
        lazy: async () => ({ Component: (await import('../views/survey/survey.js')).SurveyView }),
      },
      {
        path: 'box/:boxId/choose/:position',
        lazy: async () => ({ Component: (await import('../views/choose/choose.js')).ChooseView }),
      },
      {
        path: 'box/:boxId/flags',
        lazy: async () => ({ Component: (await import('../views/flags/flags.js')).FlagsView }),
      },
      {
        path: 'box/:boxId/photos',
        lazy: async () => ({ Component: (await import('../views/photos/photos.js')).PhotosView }),
      },
      {
        path: 'box/:boxId/wire',
        lazy: async () => ({ Component: (await import('../views/wire/wire.js')).WireView }),
      },
      {
        path: 'box/:boxId/diagnose/:position',
        lazy: async () => ({ Component: (await import('../views/diagnose/diagnose.js')).DiagnoseView }),
      },
      { path: 'day', lazy: async () => ({ Component: (await import('../views/day/day.js')).DayView }) },
      {
        path: 'install',
        lazy: async () => ({ Component: (await import('../views/install/install.js')).InstallView }),
      },
      {
        path: 'wiring',
        lazy: async () => ({
          Component: (await import('../views/wire/house-wiring.js')).HouseWiringView,
        }),
      },
      {
        path: 'fit/:boxId?',
        lazy: async () => ({ Component: (await import('../views/fit/fit.js')).FitView }),
      },
      {
        path: 'figures',
        lazy: async () => ({ Component: (await import('../views/figures/figures.js')).FiguresView }),
      },
      {
        path: 'plans',
        lazy: async () => ({ Component: (await import('../views/plans/plans.js')).PlansView }),
      },
      {
        path: 'materials',
        lazy: async () => ({ Component: (await import('../views/materials/materials.js')).MaterialsView }),
      },
      {
        path: 'catalogue/:kind?/:deviceId?',
        lazy: async () => ({ Component: (await import('../views/catalogue/catalogue.js')).CatalogueView }),
      },
      {
        path: 'panel',
        lazy: async () => ({ Component: (await import('../views/panel/panel.js')).PanelView }),
      },
      { path: 'pair', lazy: async () => ({ Component: (await import('../views/pair/pair.js')).PairView }) },
      { path: 'tune', lazy: async () => ({ Component: (await import('../views/tune/tune.js')).TuneView }) },
      {
        path: 'names',
        lazy: async () => ({ Component: (await import('../views/names/names.js')).NamesView }),
      },
      {
        path: 'rules',
        lazy: async () => ({ Component: (await import('../views/rules/rules.js')).RulesView }),
      },
      {
        path: 'history',
        lazy: async () => ({ Component: (await import('../views/history/history.js')).HistoryView }),
      },
    ]),
  },
  { path: '*', Component: Nowhere, ErrorBoundary: ViewError },
];

function views(routes: RouteObject[]): RouteObject[] {
  return routes.map((route) => ({ ...route, ErrorBoundary: ViewError }) as RouteObject);
}

function Opening() {
  return <p className="p-6">Opening …</p>;
}

function Nowhere() {
  return (
    <main className="p-6">
      <Empty title="There is nothing at this address">
        <Link className="underline" to={paths.jobs}>
          All jobs
        </Link>
      </Empty>
    </main>
  );
}
