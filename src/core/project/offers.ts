import type { Finding } from "../lint/finding.js";
import type { Offer } from "../lint/rule.js";
import { rules } from "../lint/rules/index.js";
import type { Project } from "./project.js";

/** What a finding's rule offers to do about it; undefined where it has nothing to offer. */
export function offerFor(project: Project, finding: Finding): Offer | undefined {
  const config = project.config.books.find(({ name }) => name === finding.book);
  const rule = rules.find(({ id }) => id === finding.rule);
  return config && rule?.offer?.(finding, project.book(config));
}
