import { equalCall } from "../../read-back.js";
import type { LiteralContext, LiteralRole } from "../../model.js";
import { asksForDebugging } from "../debugging.js";
import { childIn, namedChildren, type CodeNode } from "./tree.js";
import type { NodeTexts } from "./node-texts.js";
import type { Wording } from "./wording.js";

/** Of what surrounds a string so many nodes are asked what it is for: in a chain of thousands each would ask all. */
const farthest = 250;

/** What stands around the node at hand, and what its strings are for by that. */
export class Surroundings {
  /** From the root to the node at hand. */
  readonly ancestors: CodeNode[] = [];
  /** What a string whose lines are elsewhere takes the place of. */
  readonly standIns = new WeakMap<CodeNode, CodeNode>();

  constructor(
    private readonly nodes: NodeTexts,
    private readonly wording: Wording,
  ) {}

  /** The nodes around the one at hand, as far as they can tell what it is for. */
  get near(): readonly CodeNode[] {
    return this.ancestors.length > farthest ? this.ancestors.slice(-farthest) : this.ancestors;
  }

  private enclosingName(): string | undefined {
    for (const node of [...this.near].reverse()) {
      if (!this.nodes.spec.functions.includes(node.type)) continue;
      const name = childIn(node, "name");
      if (name) return this.nodes.text.slice(name.start, name.end);
    }
    return undefined;
  }

  isInAnnotation(): boolean {
    return this.near.some(({ type }) => this.nodes.spec.annotations.includes(type));
  }

  /** Whether a condition around the node at hand asks for debugging: `if ($debug)`. */
  private isDebugging(): boolean {
    const { task } = this.nodes.spoken;
    return this.near.some((node, index, near) => {
      const { type, children } = node;
      if (task && type === "call") {
        // What a task is for stands above it.
        const [next = ""] = /^\s{0,40}\w+/.exec(this.nodes.text.slice(node.end, node.end + 80)) ?? [];
        if ((task.test(this.nodes.calleeOf(node)) && opensWithBlock(node)) || task.test(next.trim()))
          return true;
      }
      if (!/^(?:if|unless)(?:_|$)/.test(type)) return false;
      const condition =
        children.find(({ field }) => field === "condition") ?? children.find(({ named }) => named);
      return (
        condition !== undefined &&
        near[index + 1] !== condition &&
        asksForDebugging(this.nodes.textOf(condition))
      );
    });
  }

  contextOf(node: CodeNode): LiteralContext {
    const base = {
      language: this.nodes.language,
      atLoad:
        (!this.nodes.spoken.runsPerRequest && !this.near.some((around) => this.defers(around))) ||
        this.near.some(({ type }) => this.nodes.spoken.fixedPlaces?.test(type)),
    };
    const component = this.enclosingName();
    const common = {
      ...base,
      ...(component !== undefined && { component }),
      ...(this.isDebugging() && { isDebugging: true as const }),
      ...(this.isInAnnotation() && { isAnnotation: true as const }),
    };
    const properties: string[] = [];
    let inner = node;
    const outermost = Math.max(this.ancestors.length - farthest, 0);
    for (let index = this.ancestors.length - 1; index >= outermost; index--) {
      const outer = this.ancestors[index];
      if (!outer) break;
      const role = this.isGivenToError(outer)
        ? { role: "thrown" as const }
        : this.roleIn(outer, inner, index, properties);
      if (role)
        return {
          ...common,
          ...role,
          ...(properties.length > 0 && { properties: [...properties].reverse() }),
        };
      inner = outer;
    }
    return { ...common, role: "other" };
  }

  /** Whether a class of errors hands what it is about to the class that it is made from. */
  private isGivenToError(call: CodeNode): boolean {
    const isUp =
      /^(?:explicit_constructor_invocation|constructor_initializer)$/.test(call.type) ||
      (this.nodes.spec.calls.includes(call.type) &&
        /^(?:super(?:\.__init__)?|super\(\)\.__init__|parent\W{1,2}__construct)$/.test(
          this.nodes.calleeOf(call),
        ));
    if (!isUp) return false;
    const holder = this.near.findLast(({ type }) => /^class(?:_declaration|_definition)?$/.test(type));
    const head =
      holder && /^[^{\n]{0,300}/.exec(this.nodes.text.slice(holder.start, holder.start + 300))?.[0];
    return (
      head !== undefined &&
      /(?:Exception|Error|Warning)\b(?!.*\bclass\b)/.test(head.replace(/^.*?\bclass\s+\w+/, ""))
    );
  }

  private defers(node: CodeNode): boolean {
    const { deferring, instanceFields } = this.nodes.spoken;
    if (deferring.test(node.type)) return true;
    if (instanceFields?.test(node.type) !== true) return false;
    const [declared = ""] = this.nodes.text
      .slice(node.start, Math.min(node.end, node.start + 200))
      .split("=", 1);
    return !/\b(?:static|const)\b/.test(declared);
  }

  private roleIn(
    outer: CodeNode,
    inner: CodeNode,
    index: number,
    properties: string[],
  ): { role: LiteralRole; name?: string; index?: number; element?: string; within?: string } | undefined {
    const { spec } = this.nodes;
    const { type } = outer;
    if (spec.annotations.includes(type)) return this.annotationRole(outer, properties);
    // A member that is named by a string: `$boat->{'Name'}`.
    if (namesMember.test(type) && (inner.field === "name" || type === "dynamic_variable_name"))
      return { role: "index" };
    if (spec.pairs.includes(type)) {
      // A member of a list has no name.
      if (outer.children.length === 1) return undefined;
      if (inner === namedChildren(outer)[0]) {
        const value = namedChildren(outer).at(-1);
        const isPlain =
          value && value !== inner && (/symbol/.test(value.type) || spec.strings.includes(value.type));
        return isPlain
          ? { role: "key", name: this.nodes.text.slice(value.start, value.end) }
          : { role: "key" };
      }
      properties.push(this.nodes.pairName(outer));
      const holder = this.ancestors[index - 1];
      if (type === "assignment_expression" && holder && !/initializer|argument|attribute/.test(holder.type))
        return { role: "assignment", name: properties.pop() ?? "" };
      return undefined;
    }
    if (/^(?:attribute_)?argument$/.test(type)) {
      const named = childIn(outer, "name");
      if (named && named !== inner) properties.push(this.nodes.textOf(named).replace(/:$/, "").trimEnd());
      return undefined;
    }
    if (spec.arguments.includes(type)) {
      const call = this.ancestors[index - 1];
      const given =
        call?.type === "enum_constant"
          ? this.constantParameter(call, namedChildren(outer).indexOf(inner))
          : undefined;
      if (given !== undefined) return { role: "property", name: given };
      if (!call || !spec.calls.includes(call.type)) return undefined;
      const at = namedChildren(outer)
        .filter(({ type }) => !spec.comments.includes(type))
        .indexOf(inner);
      const name = this.nodes.calleeOf(call);
      if (/(?:^|\.)Map\.(?:of|entry)$/.test(name)) {
        if (at % 2 === 0) return { role: "key" };
        const key = namedChildren(outer)[at - 1];
        properties.push(key ? this.nodes.text.slice(key.start, key.end).replace(/^"|"$/g, "") : "");
        return undefined;
      }
      // Lines that are joined stand where the joined text does.
      if (this.nodes.spoken.joins?.test(name)) return undefined;
      // What is only wrapped is what it would be without the wrapping.
      if (
        /^(?:List|Set|Arrays|Optional|Stream|Collections|ImmutableList|FXCollections)\.(?:of|ofNullable|asList|singletonList|observableArrayList)$/.test(
          name,
        )
      )
        return undefined;
      if (properties.length > 0) return { role: "property", name: properties[0] ?? "", element: name };
      const role = spec.throws.length === 0 && /(?:^|\.)raise$/.test(name) ? "thrown" : "argument";
      const around = this.ancestors[index - 3];
      const isPassed = spec.arguments.includes(this.ancestors[index - 2]?.type ?? "");
      const within =
        isPassed && around && spec.calls.includes(around.type) ? this.nodes.calleeOf(around) : undefined;
      return { role, name, index: at, ...(within !== undefined && { within }) };
    }
    if (spec.calls.includes(type)) {
      // What a block gives is given to the call that it is written behind: `logger.info { "Sent" }`.
      if (
        /^(?:do_)?block$/.test(inner.type) &&
        this.nodes.spoken.givesByBlock?.test(this.nodes.calleeOf(outer))
      )
        return { role: "argument", name: this.nodes.calleeOf(outer), index: 0 };
      if (inner.field !== "receiver" && inner.field !== "object") return undefined;
      // What is asked whether it holds a value is only compared with; `[…].freeze` is its list all the same.
      if (/include|contains|member|cover/.test(lastWord(this.nodes.calleeOf(outer))))
        return { role: "compared", name: "the members of a list" };
      if (equalCall.test(this.nodes.calleeOf(outer))) return { role: "compared", name: "equals" };
      return spec.strings.includes(inner.type) || this.wording.isGluing(inner)
        ? { role: "member" }
        : undefined;
    }
    if (type === "arrow_expression_clause") {
      const holder = this.ancestors[index - 1];
      const named = holder && childIn(holder, "name");
      const name = named ? this.nodes.text.slice(named.start, named.end) : (this.enclosingName() ?? "");
      return { role: "returned", name };
    }
    if (type === "switch_expression_arm" && inner === namedChildren(outer).at(-1)) return undefined;
    if (type === "anonymous_object_creation_expression") {
      const before = outer.children.slice(0, outer.children.indexOf(inner)).findLast(({ named }) => named);
      if (before) properties.push(this.nodes.text.slice(before.start, before.end));
      return undefined;
    }
    if (
      inner.type === "then" ||
      inner.type === "else" ||
      (spec.cases.includes(type) && spec.cases.includes(inner.type))
    )
      return undefined;
    if (spec.cases.includes(type) && inner.field !== "body" && inner.field !== "value_body")
      return /statement|block/.test(inner.type) ? undefined : { role: "compared", name: "case" };
    // Which member of a list is picked does not change what the members are.
    if (
      spec.subscripts.includes(type) &&
      inner === namedChildren(outer)[0] &&
      !spec.strings.includes(inner.type)
    )
      return undefined;
    if (spec.subscripts.includes(type))
      return inner === namedChildren(outer)[0] ? { role: "member" } : { role: "index" };
    if (spec.binaries.includes(type)) {
      const operator = this.nodes.operatorOf(outer);
      const into = childIn(outer, "left");
      if (into && into !== inner && this.wording.isAppending(outer))
        return { role: "argument", name: `${this.nodes.calleeName(into)}.append`, index: 0 };
      return spec.comparisons.includes(operator) ? { role: "compared", name: operator } : undefined;
    }
    if (spec.assignments.includes(type)) {
      const target = childIn(outer, "left") ?? childIn(outer, "name") ?? namedChildren(outer)[0];
      if (target === inner) return undefined;
      const name = target
        ? this.nodes.text
            .slice(target.start, target.end)
            .replace(/^[$@]+/, "")
            .replace(/->/g, ".")
        : "";
      if (properties.length > 0) return { role: "property", name: properties[0] ?? "", element: name };
      const index0 = /\[\s*[:"']?(\w+)["']?\s*\]$/.exec(name)?.[1];
      return index0 !== undefined || /[.]/.test(name)
        ? { role: "assignment", name: index0 === undefined ? name : name.replace(/\[[^]*$/, `.${index0}`) }
        : { role: "variable", name };
    }
    if (spec.returns.includes(type)) return { role: "returned", name: this.enclosingName() ?? "" };
    if (spec.throws.includes(type)) return { role: "thrown" };
    if (type === "echo_statement" || type === "print_intrinsic")
      return { role: "argument", name: "echo", index: 0 };
    if (spec.functions.includes(type)) return { role: "other" };
    return undefined;
  }

  /** What a constant of an enumeration is given: the parameter of its constructor at that place. */
  private constantParameter(constant: CodeNode, at: number): string | undefined {
    const body = this.near[this.near.indexOf(constant) - 1];
    const head =
      body &&
      /(?<![\w.])[A-Z]\w{0,60}\s?\(([^()]{1,300})\)\s*\{/.exec(
        this.nodes.text.slice(constant.end, Math.min(body.end, constant.end + 20_000)),
      );
    return /(?<!\w)\w+$/.exec(head?.[1]?.split(",")[at]?.trim() ?? "")?.[0];
  }

  /** A name given in an annotation is text where its member says so: `[Display(Name = "Boat")]`. */
  private annotationRole(
    outer: CodeNode,
    properties: readonly string[],
  ): { role: LiteralRole; name: string } {
    const name = /[A-Za-z_.]+/.exec(this.nodes.text.slice(outer.start, outer.end))?.[0] ?? "";
    const member = properties[properties.length - 1];
    if (
      member === undefined &&
      /(?:^|[a-z])(?:Description|DisplayName|Category|Label|Title|Caption|Summary|HelpText|Hint|Placeholder)$/.test(
        name,
      )
    )
      return { role: "property", name: "label" };
    // What a command or one of its options is for is all that such an annotation can say in words.
    if (
      (member === undefined || member === "value") &&
      /(?:Command|Option|Argument|Parameters?|Method|Usage|Help|Menu)$/.test(name)
    )
      return { role: "argument", name };
    return textOfAnnotation.test(member ?? "") &&
      !/^(?:Column|Table|Route|Json\w*|Named\w*|\w*Mapping|PathVariable|Query\w*|Param|Bean|field_declaration|Header|Cookie\w*|Xml\w*|Entity|Index|Sequence\w*|Join\w*|Form|From\w+|DataMember|Action\w*|Event|Web\w+)(?![a-z])/.test(
        name,
      )
      ? { role: "property", name: member ?? "" }
      : { role: "type", name };
  }
}

/** What holds the name of a member, which may be worked out, in PHP. */
const namesMember =
  /^(?:(?:nullsafe_)?member_(?:access|call)_expression|scoped_(?:property_access|call)_expression|dynamic_variable_name)$/;

/** Members of annotations that are texts, wherever they stand: `[Display(ShortName = "By")]`. */
const textOfAnnotation =
  /^(?!param)(?:\w{0,20}(?:message|description|title|label|prompt|summary|heading|header|tooltip|caption|placeholder|hint|text)|name|displayName|shortName|help)$/i;

/** Whether a call is given a block of code. */
function opensWithBlock({ children }: CodeNode): boolean {
  return children.some(({ type }) => /^(?:do_)?block$/.test(type));
}

/** The word that a name ends in; empty where it ends in something else. */
function lastWord(name: string): string {
  return /(?<!\w)\w+$/.exec(name)?.[0] ?? "";
}
