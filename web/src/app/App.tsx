import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { I18nProvider } from "react-aria-components";
import { createBrowserRouter, Navigate, RouterProvider, useLocation } from "react-router";
import { StyleSheetManager } from "styled-components";
import { ApiError } from "../api/client";
import { ErrorPage, NothingHere } from "./ErrorPage";
import { Inside } from "./Inside";
import "./settings";
import { GlobalStyle } from "./theme";

const queries: QueryClient = new QueryClient({
  defaultOptions: {
    queries: {
      retry: (count, error) => !(error instanceof ApiError && error.status < 500) && count < 2,
      networkMode: "always",
      staleTime: 5_000,
    },
    mutations: {
      networkMode: "always",
      onError: (error) => {
        if (error instanceof ApiError && [401, 403].includes(error.status))
          void queries.invalidateQueries({ queryKey: ["session"] });
      },
    },
  },
});

/** Bookmarks of before lead on. */
function Moved() {
  const { pathname, search } = useLocation();
  return <Navigate to={`${pathname.replace(/^\/c\//, "/a/")}${search}`} replace />;
}

const router = createBrowserRouter([
  {
    path: "/",
    errorElement: <ErrorPage />,
    hydrateFallbackElement: <></>,
    lazy: async () => ({ Component: (await import("../views/door/Door")).default }),
  },
  {
    path: "/reset/:uid/:token",
    errorElement: <ErrorPage />,
    lazy: async () => ({ Component: (await import("../views/door/ResetPage")).ResetPage }),
  },
  { path: "/c/*", element: <Moved /> }, // the address of before
  {
    path: "/a/:account",
    element: <Inside />,
    errorElement: <ErrorPage />,
    hydrateFallbackElement: <></>,
    children: [
      { index: true, element: <Navigate to="today" replace /> },
      {
        path: "help/:chapter?",
        lazy: async () => ({ Component: (await import("../views/help/HelpPage")).HelpPage }),
      },
      { path: "start", lazy: async () => ({ Component: (await import("../views/start/Start")).Start }) },
      { path: "today", lazy: async () => ({ Component: (await import("../views/today/Today")).Today }) },
      {
        path: "account/routes",
        lazy: async () => ({ Component: (await import("../views/account/RoutesPage")).RoutesPage }),
      },
      {
        path: "account/sites",
        lazy: async () => ({ Component: (await import("../views/account/SitesPage")).SitesPage }),
      },
      { path: "ground", lazy: async () => ({ Component: (await import("../views/ground/Ground")).Ground }) },
      {
        path: "ground/files",
        lazy: async () => ({ Component: (await import("../views/ground/GroundFiles")).GroundFiles }),
      },
      {
        path: "ground/new",
        lazy: async () => ({ Component: (await import("../views/ground/AreaFormPage")).AreaFormPage }),
      },
      {
        path: "ground/site/:id",
        lazy: async () => ({ Component: (await import("../views/ground/SitePage")).SitePage }),
      },
      {
        path: "ground/:id",
        lazy: async () => ({ Component: (await import("../views/ground/AreaPage")).AreaPage }),
      },
      {
        path: "ground/:id/change",
        lazy: async () => ({ Component: (await import("../views/ground/AreaFormPage")).AreaFormPage }),
      },
      {
        path: "ground/:id/measure",
        lazy: async () => ({ Component: (await import("../views/ground/MeasurePage")).MeasurePage }),
      },
      {
        path: "ground/:id/water",
        lazy: async () => ({ Component: (await import("../views/ground/WaterPage")).WaterPage }),
      },
      {
        path: "ground/:id/seen",
        lazy: async () => ({ Component: (await import("../views/ground/seen/SeenPage")).SeenPage }),
      },
      {
        path: "ground/:id/seen/compare",
        lazy: async () => ({ Component: (await import("../views/ground/seen/ComparePage")).ComparePage }),
      },
      {
        path: "ground/:id/seen/:photo",
        lazy: async () => ({ Component: (await import("../views/ground/seen/PhotoPage")).PhotoPage }),
      },
      {
        path: "ground/:id/soil",
        lazy: async () => ({ Component: (await import("../views/ground/soil/SoilPage")).SoilPage }),
      },
      {
        path: "ground/:id/sodium",
        lazy: async () => ({ Component: (await import("../views/ground/soil/SodiumPage")).SodiumPage }),
      },
      { path: "shelf", lazy: async () => ({ Component: (await import("../views/shelf/Shelf")).Shelf }) },
      {
        path: "shelf/stock",
        lazy: async () => ({ Component: (await import("../views/shelf/StoresPage")).StoresPage }),
      },
      {
        path: "shelf/files",
        lazy: async () => ({ Component: (await import("../views/shelf/ShelfFiles")).ShelfFiles }),
      },
      {
        path: "shelf/:id",
        lazy: async () => ({ Component: (await import("../views/shelf/ProductPage")).ProductPage }),
      },
      { path: "kit", lazy: async () => ({ Component: (await import("../views/kit/Kit")).Kit }) },
      {
        path: "kit/new",
        lazy: async () => ({ Component: (await import("../views/kit/MachineFormPage")).MachineFormPage }),
      },
      {
        path: "kit/vessels/:id",
        lazy: async () => ({ Component: (await import("../views/kit/VesselPage")).VesselPage }),
      },
      {
        path: "kit/:id",
        lazy: async () => ({ Component: (await import("../views/kit/MachinePage")).MachinePage }),
      },
      {
        path: "kit/:id/change",
        lazy: async () => ({ Component: (await import("../views/kit/MachineFormPage")).MachineFormPage }),
      },
      {
        path: "kit/:id/calibrate",
        lazy: async () => ({ Component: (await import("../views/kit/BenchPage")).BenchPage }),
      },
      {
        path: "kit/:id/nozzle",
        lazy: async () => ({ Component: (await import("../views/kit/NozzlePage")).NozzlePage }),
      },
      {
        path: "kit/:id/pace",
        lazy: async () => ({ Component: (await import("../views/kit/PacePage")).PacePage }),
      },
      {
        path: "kit/:id/setting",
        lazy: async () => ({ Component: (await import("../views/kit/SettingPage")).SettingPage }),
      },
      {
        path: "kit/:id/clean",
        lazy: async () => ({ Component: (await import("../views/kit/CleanPage")).CleanPage }),
      },
      {
        lazy: async () => ({ Component: (await import("../views/reckon/Ready")).Ready }),
        children: [
          {
            path: "reckon",
            lazy: async () => ({ Component: (await import("../views/reckon/Reckon")).Reckon }),
          },
          {
            path: "reckon/back",
            lazy: async () => ({ Component: (await import("../views/reckon/Backwards")).Backwards }),
          },
          {
            path: "reckon/compare",
            lazy: async () => ({ Component: (await import("../views/reckon/Compare")).Compare }),
          },
        ],
      },
      {
        path: "reckon/mixes",
        lazy: async () => ({ Component: (await import("../views/reckon/Mixes")).Mixes }),
      },
      {
        path: "reckon/measure",
        lazy: async () => ({ Component: (await import("../views/reckon/Measuring")).Measuring }),
      },
      {
        path: "passes",
        lazy: async () => ({ Component: (await import("../views/passes/Passes")).Passes }),
      },
      {
        path: "sky",
        lazy: async () => ({ Component: (await import("../views/sky/Sky")).Sky }),
      },
      {
        path: "sky/hours",
        lazy: async () => ({ Component: (await import("../views/sky/HoursPage")).HoursPage }),
      },
      {
        path: "sky/clocks",
        lazy: async () => ({ Component: (await import("../views/sky/ClocksPage")).ClocksPage }),
      },
      {
        path: "sky/schools",
        lazy: async () => ({ Component: (await import("../views/sky/SchoolsPage")).SchoolsPage }),
      },
      {
        path: "sky/watch",
        lazy: async () => ({ Component: (await import("../views/sky/WatchPage")).WatchPage }),
      },
      {
        path: "sky/station",
        lazy: async () => ({ Component: (await import("../views/sky/StationPage")).StationPage }),
      },
      {
        path: "sky/files",
        lazy: async () => ({ Component: (await import("../views/sky/WeatherFiles")).WeatherFiles }),
      },
      {
        path: "sky/long",
        lazy: async () => ({ Component: (await import("../views/sky/LongPage")).LongPage }),
      },
      {
        path: "season",
        lazy: async () => ({ Component: (await import("../views/season/Season")).Season }),
      },
      {
        path: "season/programme",
        lazy: async () => ({
          Component: (await import("../views/season/programme/ProgrammePage")).ProgrammePage,
        }),
      },
      {
        path: "season/sites",
        lazy: async () => ({ Component: (await import("../views/season/SitesYear")).SitesYear }),
      },
      {
        path: "season/plan",
        lazy: async () => ({ Component: (await import("../views/season/plan/PlanPage")).PlanPage }),
      },
      ...["new", ":id"].map((id) => ({
        path: `season/programme/step/${id}`,
        lazy: async () => ({ Component: (await import("../views/season/programme/StepPage")).StepPage }),
      })),
      {
        path: "season/:area/:disease",
        lazy: async () => ({ Component: (await import("../views/season/DuePage")).DuePage }),
      },
      {
        path: "round/outing/new",
        lazy: async () => ({ Component: (await import("../views/outing/NewOuting")).NewOuting }),
      },
      {
        path: "round/outing/:id",
        lazy: async () => ({ Component: (await import("../views/outing/OutingPage")).OutingPage }),
      },
      { path: "round", lazy: async () => ({ Component: (await import("../views/round/Rounds")).Rounds }) },
      {
        path: "round/:id",
        lazy: async () => ({ Component: (await import("../views/round/RoundPage")).RoundPage }),
      },
      { path: "book", lazy: async () => ({ Component: (await import("../views/book/Book")).Book }) },
      {
        path: "book/records",
        lazy: async () => ({ Component: (await import("../views/book/RecordsPage")).RecordsPage }),
      },
      {
        path: "book/past",
        lazy: async () => ({ Component: (await import("../views/book/PastPage")).PastPage }),
      },
      {
        path: "book/files",
        lazy: async () => ({ Component: (await import("../views/book/BookFiles")).BookFiles }),
      },
      {
        path: "book/story",
        lazy: async () => ({ Component: (await import("../views/book/BookStory")).BookStory }),
      },
      {
        path: "book/outcomes",
        lazy: async () => ({ Component: (await import("../views/outcomes/Outcomes")).Outcomes }),
      },
      {
        path: "book/trials",
        lazy: async () => ({ Component: (await import("../views/trials/Trials")).Trials }),
      },
      {
        path: "book/trials/new",
        lazy: async () => ({ Component: (await import("../views/trials/NewTrial")).NewTrial }),
      },
      {
        path: "book/trials/:id",
        lazy: async () => ({ Component: (await import("../views/trials/TrialPage")).TrialPage }),
      },
      {
        path: "book/:id",
        lazy: async () => ({ Component: (await import("../views/book/EntryPage")).EntryPage }),
      },
      {
        path: "account/house",
        lazy: async () => ({ Component: (await import("../views/account/HousePage")).HousePage }),
      },
      {
        path: "account/you",
        lazy: async () => ({ Component: (await import("../views/account/YouPage")).YouPage }),
      },
      {
        path: "account/away",
        lazy: async () => ({ Component: (await import("../views/account/AwayPage")).AwayPage }),
      },
      {
        path: "account/whole",
        lazy: async () => ({ Component: (await import("../views/account/WholePage")).WholePage }),
      },
      {
        path: "account",
        lazy: async () => ({ Component: (await import("../views/account/AccountPage")).AccountPage }),
      },
      { path: "parts", lazy: async () => ({ Component: (await import("../views/parts/Parts")).Parts }) },
      { path: "*", element: <NothingHere /> },
    ],
  },
  { path: "*", element: <NothingHere />, errorElement: <ErrorPage /> },
]);

const nonce = document.querySelector<HTMLMetaElement>("meta[property='csp-nonce']")?.nonce;

export function App() {
  return (
    <StyleSheetManager nonce={nonce}>
      <I18nProvider locale="en-US">
        <QueryClientProvider client={queries}>
          <GlobalStyle />
          <RouterProvider router={router} />
        </QueryClientProvider>
      </I18nProvider>
    </StyleSheetManager>
  );
}
