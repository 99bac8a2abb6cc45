declare module "swagger-ui-dist/swagger-ui-es-bundle.js" {
  const SwaggerUI: ((options: Record<string, unknown>) => unknown) & { presets: { apis: unknown } };
  export default SwaggerUI;
}
