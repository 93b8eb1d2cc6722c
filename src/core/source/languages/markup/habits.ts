import { callOf, type Habits } from "../habits.js";
import { scriptHabits } from "../script/habits.js";

/** Pages and templates: the attributes are HTML's, the calls those of the scripts and helpers in them. */
export const markupHabits: Habits = {
  ...scriptHabits,
  textCall: callOf(`
alert confirm prompt link_to button_to submit label submit_tag content_for link_to_if link_to_unless mail_to
trans translate_text default default_if_none yesno pluralize ifempty append prepend
`),
};
