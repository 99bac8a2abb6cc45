/** A file as the body of a request, sent as itself. */
export const octets = (file: Blob) => ({
  body: file as unknown as string,
  bodySerializer: (body: unknown) => body as Blob,
  headers: { "Content-Type": "application/octet-stream" },
});
