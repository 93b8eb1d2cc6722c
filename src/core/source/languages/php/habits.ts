import { callOf, codeNames, type Habits } from "../habits.js";
import { scriptHabits } from "../script/habits.js";

/** PHP, with the habits of its web frameworks. */
export const phpHabits: Habits = {
  ...scriptHabits,
  textCall: callOf(`
echo print addFlash flash setFlash with withErrors setMessage addError abort alert label placeholder setTitle setLabel
helperText heading setDescription setHelp subject line greeting action addErrorMessage addSuccessMessage title description wp_die submit_button flashMessage
`),
  codeCall: callOf(`
define defined constant require include ini_set ini_get getenv env config route url asset redirect view render header setcookie
file_get_contents file_put_contents fopen file_exists is_file is_dir mkdir unlink dirname basename realpath json_decode json_encode
explode implode str_replace preg_match preg_replace preg_split strpos str_contains str_starts_with str_ends_with substr_count trim
date strtotime date_create DateTime DateTimeImmutable setTimezone array_key_exists in_array array_column array_map usort call_user_func
method_exists class_exists property_exists function_exists is_a get post put patch delete where orderBy join leftJoin select from set
table prepare query execute bindValue bindParam fetch hasMany belongsTo hasOne belongsToMany middleware name prefix group has getParameter
setParameter add_action add_filter do_action apply_filters get_option update_option register_post_type wp_enqueue_script wp_enqueue_style
error_log trigger_error var_dump print_r assertSame assertEquals assertTrue expectException filter_input mb_convert_encoding iconv hash md5
number_format createFormBuilder getRepository dispatch make bind singleton resolve string integer text boolean
`),
  namedFirst: callOf("addFlash flash setFlash with withErrors addError"),
  textAt: [
    [callOf("addArgument"), 2, 3],
    [callOf("addOption"), 3, 4],
    [callOf("section"), 1],
    [callOf("add_menu_page add_options_page add_meta_box"), 0, 1],
    [callOf("add_submenu_page"), 1, 2],
  ],
  namingCall: callOf("setAttribute"),
  terminalFile:
    /^#!|\$argv\b|\bgetopt\(|\b(?:fwrite|fputs|fgets|fscanf|posix_isatty)\(\s?STD(?:IN|OUT|ERR)\b|(?:php_sapi_name\(\)|PHP_SAPI)\s?!==?\s?['"]cli|php:\/\/std(?:in|out|err)|\bextends\s\w{0,40}Command\b/,
  developerCall: /(?:^|\.)(?:logger|log|Log|error_log)(?:\.|$)/,
  errorCall: /(?:^|[.\\:])(?:\w*(?:Exception|Error)|(?:raise|trigger|log|report)_error)$/,
  textMember: /(?:^|\.)(?:title|message|error|success|notice|warning|info|label)$/,
  codeTemplate: codeNames,
};
