// The API is never the worker's: where the browser can be told so, what is asked of it goes straight to the server.
self.addEventListener("install", (event) => {
  event.addRoutes?.({ condition: { urlPattern: new URLPattern({ pathname: "/api/*" }) }, source: "network" });
});
