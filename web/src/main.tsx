import { nonce } from "./theme/nonce";
import "@fontsource/besley/latin-500.css";
import "@fontsource/besley/latin-600.css";
import "@fontsource/besley/latin-700.css";
import "@fontsource-variable/atkinson-hyperlegible-next";
import "@fontsource-variable/atkinson-hyperlegible-mono";
import { QueryClient, QueryClientProvider, useQuery } from "@tanstack/react-query";
import { StrictMode, Suspense } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter, Navigate, Route, Routes, useParams } from "react-router";
import { StyleSheetManager } from "styled-components";
import { unlockSound } from "./alarms/sound";
import { Problem } from "./api/client";
import { startBeating } from "./api/clock";
import { benchQuery } from "./api/bake";
import { keepPage, keptHere } from "./api/kept";
import { kitchensQuery } from "./api/kitchen";
import { LeafFrame, RoomFrame, Standing } from "./frame/Frame";
import { later } from "./frame/later";
import { BenchRoom } from "./rooms/bench/BenchRoom";
import { GlobalStyle } from "./theme/global";
import { applyPin, readPin } from "./theme/pin";
import { DrawingStyle } from "./theme/svg";

const cache = new QueryClient({
  defaultOptions: {
    queries: {
      networkMode: "always",
      retry: (count, fault) => fault instanceof Problem && fault.away && count < 60,
      retryDelay: 2000,
      staleTime: 1000,
    },
    mutations: { networkMode: "always" },
  },
});

function First() {
  const kitchens = useQuery(kitchensQuery());
  if (!kitchens.data) return <Standing fault={kitchens.failureReason} retry={() => void kitchens.refetch()} />;
  const first = kitchens.data[0];
  return <Navigate to={first ? `/k/${first.id}/bench` : "/welcome"} replace />;
}

const FireLeaf = later(() => import("./leaves/fire/FireLeaf").then((m) => m.FireLeaf));
const ROOMS = {
  bench: BenchRoom,
  day: later(() => import("./rooms/day/DayRoom").then((m) => m.DayRoom)),
  logbook: later(() => import("./rooms/logbook/LogbookRoom").then((m) => m.LogbookRoom)),
  drill: later(() => import("./rooms/drill/DrillRoom").then((m) => m.DrillRoom)),
  kitchen: later(() => import("./rooms/kitchen/KitchenRoom").then((m) => m.KitchenRoom)),
  freezer: later(() => import("./rooms/freezer/FreezerRoom").then((m) => m.FreezerRoom)),
  new: later(() => import("./rooms/newbake/NewBakeRoom").then((m) => m.NewBakeRoom)),
};
const LEAVES = {
  weigh: later(() => import("./leaves/weigh/WeighLeaf").then((m) => m.WeighLeaf)),
  mix: later(() => import("./leaves/mix/MixLeaf").then((m) => m.MixLeaf)),
  rise: later(() => import("./leaves/rise/RiseLeaf").then((m) => m.RiseLeaf)),
  keep: later(() => import("./leaves/keep/KeepLeaf").then((m) => m.KeepLeaf)),
};
const SignInRoom = later(() => import("./rooms/signin/SignInRoom").then((m) => m.SignInRoom));
const GuestRoom = later(() => import("./rooms/guest/GuestRoom").then((m) => m.GuestRoom));
const WelcomeRoom = later(() => import("./rooms/welcome/WelcomeRoom").then((m) => m.WelcomeRoom));

/** Screens that are of no kitchen. */
const ALONE = [
  ["/welcome", WelcomeRoom],
  ["/sign-in", SignInRoom],
  ["/guest", GuestRoom],
] as const;

function Room() {
  const { kitchen, room } = useParams();
  const Shown = ROOMS[room as keyof typeof ROOMS];
  if (!Shown) return <Navigate to="/" replace />;
  return (
    <RoomFrame kitchen={Number(kitchen)} here={room!}>
      {(bench) => (
        <Suspense fallback={<p className="quiet">Opening…</p>}>
          <Shown bench={bench} />
        </Suspense>
      )}
    </RoomFrame>
  );
}

function Leaf() {
  const { bake, leaf } = useParams();
  if (leaf === "fire")
    return (
      <Suspense fallback={<Standing fault={null} retry={() => undefined} />}>
        <FireLeaf key={bake} bake={Number(bake)} />
      </Suspense>
    );
  const Shown = LEAVES[leaf as keyof typeof LEAVES];
  if (!Shown) return <Navigate to={`/b/${bake}/weigh`} replace />;
  return (
    <LeafFrame bake={Number(bake)} here={leaf!}>
      {(b) => (
        <Suspense fallback={<p className="quiet">Opening…</p>}>
          <Shown key={b.id} bake={b} />
        </Suspense>
      )}
    </LeafFrame>
  );
}

applyPin(readPin());
startBeating();
unlockSound();
/** The answer of a kitchen's room is on its way beside the scripts: drawn with it, the first view is drawn once. */
async function firstAnswer(): Promise<void> {
  const kitchen = /^\/k\/(\d+)\//.exec(location.pathname)?.[1];
  if (!kitchen) return;
  await Promise.race([cache.prefetchQuery({ ...benchQuery(Number(kitchen)), retry: false }), late()]);
}
const SETTLED_MS = 4000; // the screens are fetched by then
const late = () => new Promise<void>((done) => setTimeout(done, BLANK_MS));
const BLANK_MS = 400; // nothing is shown for so long; then that it is on its way

/** Where the page is kept on this tablet, what the server told last too: shown when it does not answer. */
async function lastTold(): Promise<void> {
  if (keptHere() !== "kept") return;
  const { keepLast, restoreLast } = await import("./api/lasting");
  await restoreLast(cache).catch(() => undefined);
  keepLast(cache);
}
addEventListener("load", () => setTimeout(() => void keepPage(), SETTLED_MS));

void Promise.all([firstAnswer(), Promise.race([lastTold(), late()])]).then(() =>
  createRoot(document.getElementById("root")!).render(
    <StrictMode>
      <StyleSheetManager nonce={nonce}>
        <QueryClientProvider client={cache}>
          <GlobalStyle />
          <DrawingStyle />
          <BrowserRouter>
            <Routes>
              <Route path="/" element={<First />} />
              {ALONE.map(([at, Shown]) => (
                <Route
                  key={at}
                  path={at}
                  element={
                    <Suspense fallback={<Standing fault={null} retry={() => undefined} />}>
                      <Shown />
                    </Suspense>
                  }
                />
              ))}
              <Route path="/k/:kitchen/:room" element={<Room />} />
              <Route path="/b/:bake/:leaf" element={<Leaf />} />
              <Route path="*" element={<Navigate to="/" replace />} />
            </Routes>
          </BrowserRouter>
        </QueryClientProvider>
      </StyleSheetManager>
    </StrictMode>,
  ),
);
