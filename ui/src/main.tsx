import "@fontsource-variable/atkinson-hyperlegible-next";
import { ChakraProvider } from "@chakra-ui/react";
import { QueryClient } from "@tanstack/react-query";
import { PersistQueryClientProvider } from "@tanstack/react-query-persist-client";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { App } from "./App";
import { KEEP_MS, persistence } from "./offline/persist";
import { keepOffline } from "./offline/serviceWorker";
import { applyColorMode } from "./theme/colorMode";
import { system } from "./theme/system";

applyColorMode();
keepOffline();

const queries = new QueryClient({
  // The server is on this machine or near: it answers or it is gone, whatever the
  // browser believes of the network.
  defaultOptions: {
    queries: { networkMode: "always", retry: 1, gcTime: KEEP_MS },
    mutations: { networkMode: "always" },
  },
});

const root = document.getElementById("root");
if (!root) throw new Error("the page has no #root");
createRoot(root).render(
  <StrictMode>
    <ChakraProvider value={system}>
      <PersistQueryClientProvider client={queries} persistOptions={persistence}>
        <BrowserRouter>
          <App />
        </BrowserRouter>
      </PersistQueryClientProvider>
    </ChakraProvider>
  </StrictMode>,
);
