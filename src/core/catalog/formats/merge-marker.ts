import type { CatalogProblem } from "../model.js";

/** The first conflict marker of version control at the start of a line, as a problem of the file; undefined without one. */
export function mergeMarker(text: string): CatalogProblem | undefined {
  if (!text.includes("<<<<<<<")) return undefined;
  const marker = /^(<<<<<<<|=======|>>>>>>>)(?: .*)?$/m.exec(text);
  if (!marker) return undefined;
  return {
    code: "merge-marker",
    message: `a conflict marker of version control (${marker[1]})`,
    remedy: "settle the conflict: keep the entries that belong here and remove the marker lines",
    span: { start: marker.index, end: marker.index + marker[0].length },
  };
}
