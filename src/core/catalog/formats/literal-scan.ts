import { deepestNesting } from "../../text/nesting.js";
import type { LiteralMember, LiteralNode } from "./literal-edit.js";

/** Where a text stops being what a scanner reads. */
export class LiteralBreak extends Error {
  constructor(
    readonly offset: number,
    readonly why: "unexpected" | "end" | "deep",
  ) {
    super("no literal");
  }
}

/** A string as a language writes it. */
export interface WrittenText {
  readonly end: number;
  /** What it says; undefined where the program fills values in. */
  readonly value: string | undefined;
}

/** What a scanner needs to know of a language. */
export interface LiteralLanguage {
  /** Comments and blanks, sticky. */
  readonly space: RegExp;
  /** Reads the string that starts at a place; undefined where none does. */
  text(source: string, at: number): WrittenText | undefined;
  /** What opens a group or list at a place: how long it is, what closes it, and whether it is a group of names if known. */
  opens(
    source: string,
    at: number,
  ): { readonly length: number; readonly close: string; readonly isList?: boolean } | undefined;
  /** A name in front of a value, sticky: undefined where none is. */
  name(source: string, at: number): { readonly name: string | undefined; readonly end: number } | undefined;
  /** What stands between a name and its value. */
  readonly between: string;
  /** What joins texts: "+". */
  readonly join: string;
  /** Numbers and words that are values by themselves, sticky. */
  readonly word: RegExp;
  /** What may stand behind a value without changing it, sticky: `as const`. */
  readonly behind?: RegExp;
  /** Whether a regular expression may start at a slash here. */
  readonly hasPatterns?: true;
}

/** Groups in braces and lists in brackets, as most languages have them. */
export const bracesOrBrackets: LiteralLanguage["opens"] = (source, at) =>
  source[at] === "{"
    ? { length: 1, close: "}", isList: false }
    : source[at] === "["
      ? { length: 1, close: "]", isList: true }
      : undefined;

/** Reads the literals of a language: groups, lists and texts; whatever else it finds is code. */
export class LiteralScanner {
  /** What each text says, by where it starts. */
  readonly texts = new Map<number, string>();
  private depth = 0;
  /** Where the last of the strings started that make up a text. */
  private lastPart = 0;

  constructor(
    readonly source: string,
    private readonly language: LiteralLanguage,
  ) {}

  /** The place behind blanks and comments. */
  space(at: number): number {
    const { space } = this.language;
    space.lastIndex = at;
    return at + (space.exec(this.source)?.[0].length ?? 0);
  }

  /** The value that starts at a place, up to what ends it. */
  value(start: number): LiteralNode {
    const opened = this.language.opens(this.source, start);
    if (opened) {
      const group = this.group(start, opened);
      return this.isEnded(group.end) ? group : this.code(start);
    }
    const text = this.textAt(start);
    if (text?.value !== undefined && this.isEnded(text.end)) {
      this.texts.set(start, text.value);
      return { kind: "text", start, end: text.end, members: [] };
    }
    // Where strings beside each other are one, the last is the name of the next entry: a comma is missing.
    if (text?.value !== undefined && this.language.join === "" && this.lastPart > start) {
      const next = this.space(text.end);
      if (this.source.startsWith(this.language.between, next))
        throw new LiteralBreak(this.lastPart, "unexpected");
    }
    // Behind a text stands an operator, or it was not meant to end there, or a comma is missing.
    if (text?.value !== undefined) {
      const next = this.space(text.end);
      if (
        /^(?:["'`]|(?!(?:as|satisfies|in|instanceof|and|or|xor)\b)[\p{L}\p{N}_$])/u.test(
          this.source.slice(next, next + 12),
        )
      )
        throw new LiteralBreak(next, "unexpected");
    }
    const word = text ? undefined : this.wordAt(start);
    if (word !== undefined && this.isEnded(start + word.length))
      return {
        kind: /^(?:true|false)$/i.test(word) ? "boolean" : /^[-+.\d]/.test(word) ? "number" : "null",
        start,
        end: start + word.length,
        members: [],
      };
    return this.code(start);
  }

  /** The text at a place, with the fixed ones that are joined to it. */
  private textAt(start: number): WrittenText | undefined {
    const { language, source } = this;
    let text = language.text(source, start);
    this.lastPart = start;
    while (text?.value !== undefined) {
      const joint = this.space(text.end);
      const next = source.startsWith(language.join, joint)
        ? language.text(source, this.space(joint + language.join.length))
        : undefined;
      if (next?.value === undefined) return text;
      this.lastPart = this.space(joint + language.join.length);
      text = { end: next.end, value: text.value + next.value };
    }
    return text;
  }

  private wordAt(at: number): string | undefined {
    const { word } = this.language;
    word.lastIndex = at;
    return word.exec(this.source)?.[0];
  }

  /** Whether a value ends at a place: behind it comes what parts values, or the end. */
  private isEnded(at: number): boolean {
    const { behind } = this.language;
    let next = this.space(at);
    if (behind) {
      behind.lastIndex = next;
      next = this.space(next + (behind.exec(this.source)?.[0].length ?? 0));
    }
    return next >= this.source.length || /[,)\]};]/.test(this.source[next] ?? "");
  }

  /** Where what may stand behind a value ends. */
  private pastBehind(at: number): number {
    const { behind } = this.language;
    if (!behind) return at;
    behind.lastIndex = this.space(at);
    const found = behind.exec(this.source)?.[0];
    return found === undefined ? at : behind.lastIndex;
  }

  private group(
    start: number,
    { length, close, isList }: { readonly length: number; readonly close: string; readonly isList?: boolean },
  ): LiteralNode {
    if (++this.depth > deepestNesting) throw new LiteralBreak(start, "deep");
    const members: LiteralMember[] = [];
    let hasNames = isList === false;
    let at = this.space(start + length);
    while (this.source[at] !== close) {
      if (at >= this.source.length) throw new LiteralBreak(at, "end");
      const member = this.member(at, members.length, isList);
      members.push(member);
      hasNames ||= typeof member.name === "string";
      at = this.space(this.pastBehind(member.value.end));
      if (this.source[at] === ",") {
        member.commaEnd = at + 1;
        at = this.space(at + 1);
      } else if (this.source[at] !== close)
        throw new LiteralBreak(at, at >= this.source.length ? "end" : "unexpected");
    }
    this.depth--;
    // What has no members yet may get names.
    const isGroup = hasNames || (isList === undefined && members.length === 0);
    return { kind: isGroup ? "object" : "list", start, end: at + 1, members };
  }

  private member(start: number, index: number, isList: boolean | undefined): LiteralMember {
    const found = isList === true ? undefined : this.language.name(this.source, start);
    const behind = found ? this.space(found.end) : start;
    if (found && this.source.startsWith(this.language.between, behind)) {
      const value = this.value(this.space(behind + this.language.between.length));
      return { name: found.name ?? `${hidden}${index}`, start, value };
    }
    if (isList === false) {
      // A method, a spread, a getter: kept as it is. Of a method the name is known.
      const value = this.code(start);
      return { name: found?.name ?? `${hidden}${index}`, start, value };
    }
    return { name: index, start, value: this.value(start) };
  }

  /** What is worked out, up to where it ends: brackets and strings in it are passed over. */
  private code(start: number): LiteralNode {
    const end = this.codeEnd(start, false);
    if (end <= start) throw new LiteralBreak(start, start >= this.source.length ? "end" : "unexpected");
    return { kind: "code", start, end, members: [] };
  }

  /** Where code ends: at a comma or a closing bracket that none in it opens; for a statement, behind its semicolon or line. */
  codeEnd(start: number, isStatement: boolean): number {
    const { source, language } = this;
    const open: string[] = [];
    let end = start;
    for (let at = start; at < source.length;) {
      const next = this.space(at);
      if (
        isStatement &&
        open.length === 0 &&
        next > at &&
        /[\r\n]/.test(source.slice(at, next)) &&
        end > start
      )
        return end;
      at = next;
      const unit = source[at] ?? "";
      const text = language.text(source, at);
      if (text) {
        at = text.end;
        // A quote that is meant as part of the text ends it: what stands right behind is no code.
        if (/["'\p{L}\p{N}]/u.test(source[at] ?? "")) throw new LiteralBreak(at, "unexpected");
      } else if (/["'`]/.test(unit)) throw new LiteralBreak(at, "unexpected");
      else if (/[([{]/.test(unit)) {
        open.push(unit);
        at++;
      } else if (/[)\]}]/.test(unit)) {
        if (open.length === 0) return end;
        open.pop();
        at++;
      } else if (open.length === 0 && (unit === ";" || (unit === "," && !isStatement))) {
        return isStatement ? at + 1 : end;
      } else if (
        language.hasPatterns &&
        unit === "/" &&
        /(?:^|[(,=:[!&|?{};>]|\breturn)\s*$/.test(source.slice(Math.max(at - 12, 0), at))
      ) {
        const pattern = /\/(?:[^\\/[\r\n]|\\.|\[(?:[^\\\]\r\n]|\\.)*\])+\/\w*/y;
        pattern.lastIndex = at;
        at += pattern.exec(source)?.[0].length ?? 1;
      } else at += /[\p{L}\p{N}_$]+/uy.test(unit) ? this.wordLength(at) : 1;
      end = at;
    }
    if (open.length > 0) throw new LiteralBreak(source.length, "end");
    return end;
  }

  private wordLength(at: number): number {
    const word = /[\p{L}\p{N}_$]+/uy;
    word.lastIndex = at;
    return word.exec(this.source)?.[0].length ?? 1;
  }
}

/** What the names of members begin with that have none of their own in the file. */
export const hidden = "\uFDD2";
