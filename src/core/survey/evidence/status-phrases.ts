import { fixedText } from "../../source/model.js";
import { evidence } from "../company.js";
import type { EvidenceSource } from "./source.js";

/** The phrases that HTTP gives its status codes (RFC 9110, section 15; RFC 4918, 5842, 6585, 7538, 7725, 8297, 8470), from a code upwards. */
const phrases: Readonly<Record<string, readonly string[]>> = {
  100: ["Continue", "Switching Protocols", "Processing", "Early Hints"],
  200: [
    "OK",
    "Created",
    "Accepted",
    "Non-Authoritative Information",
    "No Content",
    "Reset Content",
    "Partial Content",
    "Multi-Status",
    "Already Reported",
  ],
  300: [
    "Multiple Choices",
    "Moved Permanently",
    "Found",
    "See Other",
    "Not Modified",
    "Use Proxy",
    "Unused",
    "Temporary Redirect",
    "Permanent Redirect",
  ],
  400: [
    "Bad Request",
    "Unauthorized",
    "Payment Required",
    "Forbidden",
    "Not Found",
    "Method Not Allowed",
    "Not Acceptable",
    "Proxy Authentication Required",
    "Request Timeout",
    "Conflict",
    "Gone",
    "Length Required",
    "Precondition Failed",
    "Content Too Large",
    "URI Too Long",
    "Unsupported Media Type",
    "Range Not Satisfiable",
    "Expectation Failed",
  ],
  421: [
    "Misdirected Request",
    "Unprocessable Content",
    "Locked",
    "Failed Dependency",
    "Too Early",
    "Upgrade Required",
    "Unassigned",
    "Precondition Required",
    "Too Many Requests",
    "Unassigned",
    "Request Header Fields Too Large",
  ],
  451: ["Unavailable For Legal Reasons"],
  500: [
    "Internal Server Error",
    "Not Implemented",
    "Bad Gateway",
    "Service Unavailable",
    "Gateway Timeout",
    "HTTP Version Not Supported",
    "Variant Also Negotiates",
    "Insufficient Storage",
    "Loop Detected",
    "Bandwidth Limit Exceeded",
    "Not Extended",
    "Network Authentication Required",
  ],
};

const byCode: ReadonlyMap<string, string> = new Map(
  Object.entries(phrases).flatMap(([first, list]) =>
    list.map((phrase, step) => [String(Number(first) + step), phrase.toLowerCase()] as const),
  ),
);

/** So many literals before and behind one are looked at for a table that it is in. */
const reach = 6;

/** A table from the status codes of HTTP to their phrases: what a response's first line says, and no one reads. */
export const statusPhrase: EvidenceSource = ({ context, pieces }, _habits, _own, { literals, index }) => {
  const code = context.role === "property" ? (context.properties?.at(-1) ?? "") : "";
  if (!/^[1-5]\d\d$/.test(code) || pieces.length !== 1) return undefined;
  const isPhrase = (at: number) => {
    const other = literals[at];
    const phrase = other && byCode.get(other.context.properties?.at(-1) ?? "");
    return phrase !== undefined && phrase === fixedText(other?.pieces ?? []).toLowerCase();
  };
  const around = Array.from({ length: 2 * reach + 1 }, (_, step) => index - reach + step);
  // A page of errors may name one or two as the standard does.
  return around.filter(isPhrase).length >= 4
    ? evidence("statusPhrase", "in a table of the phrases of HTTP's status codes")
    : undefined;
};
