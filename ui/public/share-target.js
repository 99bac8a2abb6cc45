// What another application shares to the installed page: laid into a cache, from which the page
// takes it (shell/incoming/useComing.ts). Nothing leaves the device.
self.addEventListener("fetch", (event) => {
  const { pathname } = new URL(event.request.url);
  if (event.request.method !== "POST" || pathname !== "/share") return;
  event.respondWith(
    (async () => {
      const form = await event.request.formData();
      const cache = await caches.open("shared-files");
      const text = ["title", "text", "url"].map((name) => form.get(name)).find((said) => said);
      const files = form.getAll("files");
      if (files.length === 0 && text) files.push(new File([text], "What was shared", { type: "text/plain" }));
      await Promise.all(
        files.map((file, i) => {
          const headers = { "X-File-Name": encodeURIComponent(file.name) };
          return cache.put(`/shared/${i}`, new Response(file, { headers }));
        }),
      );
      return Response.redirect("/measure", 303);
    })(),
  );
});
