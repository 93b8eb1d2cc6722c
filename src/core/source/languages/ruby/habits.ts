import { callOf, codeNames, nameEndingIn, type Habits } from "../habits.js";
import { scriptHabits } from "../script/habits.js";

/** Ruby, with the habits of its web frameworks. */
export const rubyHabits: Habits = {
  ...scriptHabits,
  textName: nameEndingIn(`
notice alert title subtitle label text heading headline caption message description placeholder tooltip hint summary
question answer greeting note warning legend alt prompt tagline intro blurb confirm confirmation subject body_text
submit success error flash disable_with prompt include_blank plain banner
`),
  textCall: callOf(`
(?<!(?<!helpers?|view|h|self|view_context|template)\\.)(?:link_to|link_to_if|link_to_unless_current|button_to|mail_to|submit_tag|label_tag|content_tag|button_tag)
submit label button legend errors\\.add add_error flash\\.now alert notice title page_title content_for simple_format
field_set_tag f\\.inputs options_for_select say say_status ask yes no alert_error alert_warning tag\\.\\w+ ui\\.\\w+ shell\\.\\w+ select f\\.select form\\.select abort
`),
  codeCall: callOf(`
require require_relative load autoload include extend attr_accessor attr_reader attr_writer belongs_to has_many has_one
has_and_belongs_to_many scope validates validate before_action after_action around_action before_save after_save skip_before_action
resources resource get post put patch delete match root namespace where find_by order joins group pluck includes
send public_send respond_to\\? define_method instance_variable_get instance_variable_set const_get is_a\\? render partial
redirect_to_path fetch dig key\\? has_key\\? gsub sub split join start_with\\? end_with\\? include\\? match\\? strftime
p pp raise_error describe context it expect let subject system exec open read write File\\.join 
ENV\\.fetch image_tag stylesheet_link_tag javascript_include_tag asset_path path url_for add_index add_column create_table string
integer boolean datetime references remove_column update_all execute delegate alias_method helper_method layout gem source group task desc
to eq have_content setting header permit require_params
`),
  namedFirst: callOf(`
content_tag label_tag label f\\.label form\\.label select_tag text_field_tag check_box_tag radio_button_tag content_for errors\\.add
add_error flash\\.now select f\\.select form\\.select fields_for form_for tag
`),
  printingCall: callOf("puts print"),
  namingCall: callOf("fetch"),
  textAt: [[callOf("\\w+\\.on option method_option add_option desc"), 1, 9]],
  errorStream: /^(?:Kernel\.)?warn$|^(?:stderr|STDERR)\.\w+$/,
  developerCall: /(?:^|\.)(?:logger|[A-Z]\w*\.logger)(?:\.|$)/,
  errorCall: /(?:^|\.)(?:raise|fail|\w+(?:Error|Exception)(?:\.new)?)$/,
  textMember: /(?:^|\.)(?:notice|alert|title|error|success|warning|info)$/,
  codeTemplate: codeNames,
};
