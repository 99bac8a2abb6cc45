/** A file as the body of a request, sent as itself. */
export const octets = (file: File) => ({
  body: file as unknown as string,
  bodySerializer: (body: unknown) => body as Blob,
  headers: { "Content-Type": "application/octet-stream" },
});
