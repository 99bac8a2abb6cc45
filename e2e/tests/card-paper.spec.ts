import { expect, test } from "../app.ts";
import { pdf } from "../pdf.ts";
