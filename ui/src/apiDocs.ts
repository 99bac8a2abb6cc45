import SwaggerUI from "swagger-ui-dist/swagger-ui-es-bundle.js";
import "swagger-ui-dist/swagger-ui.css";

/** What the server's OpenAPI document says, for people: each example can be sent to this very server. */
SwaggerUI({
  dom_id: "#docs",
  url: "/api/openapi-3.0.json", // of a document of version 3.1 an operation opens four times as slowly
  presets: [SwaggerUI.presets.apis],
  deepLinking: true,
  docExpansion: "none",
  // What is asked most comes first.
  tagsSorter: (a: string, b: string) => Number(b === "calc") - Number(a === "calc") || a.localeCompare(b),
  defaultModelsExpandDepth: -1,
  tryItOutEnabled: true,
  validatorUrl: null,
  supportedSubmitMethods: ["get", "post"],
});
