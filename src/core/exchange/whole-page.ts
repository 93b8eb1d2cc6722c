/** What one HTML file with everything in it is made of. */
export interface PageParts {
  readonly title: string;
  /** The id of the element that has its data as JSON. */
  readonly id: string;
  readonly script: string;
  readonly style: string;
  /** Whether a server stands behind it that it may ask. */
  readonly isServed?: boolean;
  /** The SHA-256 digest of a text in Base64, as a content security policy names it (CSP Level 3, section 2.3.1). */
  readonly digest: (text: string) => string;
}

/** One HTML file that loads nothing: its policy allows its own script and style alone. `json` is its data, piece by piece. */
export function* wholePage(
  { title, id, script, style, isServed, digest }: PageParts,
  json: Iterable<string>,
): Iterable<string> {
  const policy = [
    "default-src 'none'",
    `script-src 'sha256-${digest(script)}'`,
    `style-src 'sha256-${digest(style)}'`,
    "img-src data:",
    "base-uri 'none'",
    "form-action 'none'",
    ...(isServed ? ["connect-src 'self'"] : []),
  ].join("; ");
  yield `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta http-equiv="Content-Security-Policy" content="${policy}">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta name="color-scheme" content="light dark">
<title>${title.replace(/[&<>"]/g, (one) => `&#${one.charCodeAt(0)};`)}</title>
<style>${style}</style>
</head>
<body>
<main id="page"><noscript>This page needs JavaScript. It loads nothing from anywhere.</noscript></main>
<script type="application/json" id="${id}">`;
  yield* json;
  yield `</script>
<script>${script}</script>
</body>
</html>
`;
}

/** JSON as the content of an element: nothing in it ends one. */
export function jsonInPage(value: unknown): string {
  return JSON.stringify(value).replace(
    /[<\u2028\u2029]/g,
    (one) => `\\u${one.charCodeAt(0).toString(16).padStart(4, "0")}`,
  );
}
