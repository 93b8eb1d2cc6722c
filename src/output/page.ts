import { createHash } from "node:crypto";

/** What one HTML file with everything in it is made of. */
export interface PageParts {
  readonly title: string;
  /** What its script reads, as JSON under an id. */
  readonly id: string;
  readonly data: unknown;
  readonly script: string;
  readonly style: string;
  /** Whether a server stands behind it that it may ask. */
  readonly isServed?: boolean;
}

/** One HTML file that loads nothing: its policy allows its own script and style alone. */
export function wholePage({ title, id, data, script, style, isServed }: PageParts): string {
  const digest = (text: string) => createHash("sha256").update(text).digest("base64");
  const policy = `default-src 'none'; script-src 'sha256-${digest(script)}'; style-src 'sha256-${digest(style)}'; img-src data:; base-uri 'none'; form-action 'none'${isServed ? "; connect-src 'self'" : ""}`;
  return `<!doctype html>
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
<script type="application/json" id="${id}">${JSON.stringify(data).replace(/[<\u2028\u2029]/g, (one) => `\\u${one.charCodeAt(0).toString(16).padStart(4, "0")}`)}</script>
<script>${script}</script>
</body>
</html>
`;
}
