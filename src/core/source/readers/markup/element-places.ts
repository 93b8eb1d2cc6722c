import { showsPictures } from "../../../text/html-elements.js";
import type { Dialect } from "../../dialects/dialect.js";
import type { LiteralContext } from "../../model.js";
import { metaName } from "./parts.js";
import type { MarkupElement } from "./tree.js";

/** Where the value of an attribute stands, by its name as the page writes it. */
export function attributeContext(
  { givesByAt }: Dialect,
  element: MarkupElement,
  written: string,
): LiteralContext {
  const name = givesByAt ? written.replace(/^@/, "") : written;
  const type = element.attributes
    .find((attribute) => attribute.name.toLowerCase() === "type")
    ?.raw?.toLowerCase();
  const tag = element.name.toLowerCase();
  const isButton =
    name.toLowerCase() === "value" &&
    ((tag === "input" && /^(submit|button|reset)$/.test(type ?? "")) ||
      /:(?:command|menu)?(?:button|link|item)$/.test(tag));
  // What a tag puts out is shown where it stands.
  if (/:(?:out|output(?:text|label|format))$/.test(tag) && /^(?:value|default)$/.test(name))
    return contentContext(element);
  // `<c:set var="title" value="Tours">`: what it is called says what it is.
  const called =
    /:|^param$/.test(tag) && /^(?:value|default)$/.test(name)
      ? element.attributes.find((one) => /^(?:var|name|property)$/.test(one.name))?.raw
      : undefined;
  if (called)
    return {
      language: "markup",
      role: "attribute",
      name: called,
      element: element.name,
      properties: [called],
      atLoad: false,
    };
  const isMeta =
    tag === "meta" &&
    name.toLowerCase() === "content" &&
    /description|title|site_name|application-name/i.test(metaName(element));
  return {
    language: "markup",
    role: "attribute",
    name: isButton || isMeta ? "title" : name,
    element: element.name,
    atLoad: false,
  };
}

/** Where the content of an element stands; of none, at the page's outermost level. */
export function contentContext(element: MarkupElement | undefined): LiteralContext {
  return {
    language: "markup",
    role: "content",
    ...(element && element.name !== "" && { element: element.name }),
    ...(element &&
      showsPictures(element.attributes.find(({ name }) => name === "class")?.raw) && { isPicture: true }),
    atLoad: false,
  };
}
