import "@fontsource-variable/atkinson-hyperlegible-next";
import "virtual:theme.css";
import { ChakraProvider } from "@chakra-ui/react";
import { notifyManager, type Query, QueryCache, QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { App } from "./App";
import { askAhead, isJustAnswered } from "./api/askAhead";
import { Problem } from "./api/client";
import { answerHere } from "./api/here/calc";
import { sessionQuery } from "./api/queries";
import { whenQuiet } from "./lib/whenQuiet";
import { forgetEverything } from "./offline/forget";
import { KEEP_MS, keepAnswers } from "./offline/persist";
import { keepOffline } from "./offline/serviceWorker";
import { askFor, loadPlace } from "./places/places";
import { Guarded } from "./shell/Broken";
import { keepInstallOffer } from "./shell/install";
import { offerNewVersion } from "./shell/toaster";
import { applyColorMode } from "./theme/colorMode";
import { system } from "./theme/system";

applyColorMode();
keepInstallOffer();
whenQuiet(() => keepOffline(offerNewVersion));
// The computation for the browser's console, as "pinhole calc" is for the command line.
Object.assign(window, { pinhole: { calc: answerHere } });

/** What the server says to a device that was shut out: it lets go of all it keeps. */
const SHUT_OUT = "this device was shut out";

// An answer is drawn as soon as it is there; a timer would wait for another turn of the page.
notifyManager.setScheduler(queueMicrotask);

const queries = new QueryClient({
  // A session that has ended is found out by whatever is asked next.
  queryCache: new QueryCache({
    onError: (cause, query) => {
      if (!(cause instanceof Problem) || cause.status !== 401 || query.queryKey[0] === "session") return;
      if (cause.message === SHUT_OUT) void forgetEverything(queries).then(() => window.location.reload());
      else void queries.invalidateQueries({ queryKey: sessionQuery.queryKey });
    },
  }),
  // The server is on this machine or near: it answers or it is gone, whatever the
  // browser believes of the network.
  defaultOptions: {
    queries: {
      networkMode: "always",
      // What the server refuses, it refuses again.
      retry: (failures, cause) => failures < 1 && !(cause instanceof Problem && cause.status < 500),
      gcTime: KEEP_MS,
      refetchOnMount: (query) => !isJustAnswered(query as Query),
    },
    mutations: { networkMode: "always" },
  },
});

/** So long the page waits for the code of its place; over a slow network its frame comes first. */
const PATIENCE_MS = 500;

/** Draws the page, once what it opens with is there. */
async function open(root: HTMLElement): Promise<void> {
  askFor(window.location.pathname, askAhead(queries));
  const slow = new Promise((resolve) => setTimeout(resolve, PATIENCE_MS));
  await Promise.all([keepAnswers(queries), Promise.race([loadPlace(window.location.pathname), slow])]);
  createRoot(root).render(
    <StrictMode>
      <ChakraProvider value={system}>
        <QueryClientProvider client={queries}>
          <BrowserRouter>
            <Guarded>
              <App />
            </Guarded>
          </BrowserRouter>
        </QueryClientProvider>
      </ChakraProvider>
    </StrictMode>,
  );
}

const root = document.getElementById("root");
if (!root) throw new Error("the page has no #root");
// Not awaited: the code of a place waits for all of this file.
void open(root);
