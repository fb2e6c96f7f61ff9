import { nonce } from "./theme/nonce";
import "@fontsource/besley/latin-500.css";
import "@fontsource/besley/latin-600.css";
import "@fontsource/besley/latin-700.css";
import "@fontsource-variable/atkinson-hyperlegible-next";
import "@fontsource-variable/atkinson-hyperlegible-mono";
import { QueryClient, QueryClientProvider, useQuery } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter, Navigate, Route, Routes, useParams } from "react-router";
import { StyleSheetManager } from "styled-components";
import { unlockSound } from "./alarms/sound";
import { Problem } from "./api/client";
import { startBeating } from "./api/clock";
import { kitchensQuery } from "./api/kitchen";
import { LeafFrame, RoomFrame, Standing } from "./frame/Frame";
import { FireLeaf } from "./leaves/fire/FireLeaf";
import { KeepLeaf } from "./leaves/keep/KeepLeaf";
import { MixLeaf } from "./leaves/mix/MixLeaf";
import { RiseLeaf } from "./leaves/rise/RiseLeaf";
import { WeighLeaf } from "./leaves/weigh/WeighLeaf";
import { BenchRoom } from "./rooms/bench/BenchRoom";
import { DayRoom } from "./rooms/day/DayRoom";
import { FreezerRoom } from "./rooms/freezer/FreezerRoom";
import { KitchenRoom } from "./rooms/kitchen/KitchenRoom";
import { LogbookRoom } from "./rooms/logbook/LogbookRoom";
import { NewBakeRoom } from "./rooms/newbake/NewBakeRoom";
import { WelcomeRoom } from "./rooms/welcome/WelcomeRoom";
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
  if (!kitchens.data) return <Standing fault={kitchens.error} retry={() => void kitchens.refetch()} />;
  const first = kitchens.data[0];
  return <Navigate to={first ? `/k/${first.id}/bench` : "/welcome"} replace />;
}

const ROOMS = {
  bench: BenchRoom,
  day: DayRoom,
  logbook: LogbookRoom,
  kitchen: KitchenRoom,
  freezer: FreezerRoom,
  new: NewBakeRoom,
};
const LEAVES = { weigh: WeighLeaf, mix: MixLeaf, rise: RiseLeaf, keep: KeepLeaf };

function Room() {
  const { kitchen, room } = useParams();
  const Shown = ROOMS[room as keyof typeof ROOMS];
  if (!Shown) return <Navigate to="/" replace />;
  return (
    <RoomFrame kitchen={Number(kitchen)} here={room!}>
      {(bench) => <Shown bench={bench} />}
    </RoomFrame>
  );
}

function Leaf() {
  const { bake, leaf } = useParams();
  if (leaf === "fire") return <FireLeaf key={bake} bake={Number(bake)} />;
  const Shown = LEAVES[leaf as keyof typeof LEAVES];
  if (!Shown) return <Navigate to={`/b/${bake}/weigh`} replace />;
  return (
    <LeafFrame bake={Number(bake)} here={leaf!}>
      {(b) => <Shown key={b.id} bake={b} />}
    </LeafFrame>
  );
}

applyPin(readPin());
startBeating();
unlockSound();
createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <StyleSheetManager nonce={nonce}>
      <QueryClientProvider client={cache}>
        <GlobalStyle />
        <DrawingStyle />
        <BrowserRouter>
          <Routes>
            <Route path="/" element={<First />} />
            <Route path="/welcome" element={<WelcomeRoom />} />
            <Route path="/k/:kitchen/:room" element={<Room />} />
            <Route path="/b/:bake/:leaf" element={<Leaf />} />
            <Route path="*" element={<Navigate to="/" replace />} />
          </Routes>
        </BrowserRouter>
      </QueryClientProvider>
    </StyleSheetManager>
  </StrictMode>,
);
