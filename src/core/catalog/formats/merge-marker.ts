import { notices } from "../../message/notices.js";
import type { CatalogProblem } from "../model.js";

const say = notices("catalog", {
  "merge-marker": {
    message: "conflict marker of version control ({marker})",
    remedy: "resolve the conflict: keep the entries that belong here and remove the marker lines",
  },
});

/** The first conflict marker of version control at the start of a line, as a problem of the file; undefined without one. */
export function mergeMarker(text: string): CatalogProblem | undefined {
  if (!text.includes("<<<<<<<")) return undefined;
  const marker = /^(<<<<<<<|=======|>>>>>>>)(?: .*)?$/m.exec(text);
  if (!marker) return undefined;
  return {
    code: "merge-marker",
    ...say("merge-marker", { marker: marker[1] ?? "" }),
    span: { start: marker.index, end: marker.index + marker[0].length },
  };
}
