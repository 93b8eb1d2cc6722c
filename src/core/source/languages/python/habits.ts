import { callOf, nameEndingIn, never, type Habits } from "../habits.js";
import { scriptHabits } from "../script/habits.js";

/** Python, with the habits of its web frameworks. */
export const pythonHabits: Habits = {
  ...scriptHabits,
  textName: nameEndingIn(`
title subtitle label text heading headline caption message description placeholder tooltip hint summary help help_text
question answer greeting note notice warning legend alt prompt tagline intro blurb subject verbose_name verbose_name_plural
short_description error_message success_message empty_label site_header site_title index_title
`),
  textCall: callOf(`
flash messages\\.(?:success|error|warning|info|debug|add_message) ValidationError forms\\.ValidationError add_error showinfo button checkbox radio selectbox success subheader showwarning showerror askyesno
askokcancel askquestion askretrycancel askyesnocancel messagebox\\.\\w+
Label Button setText setWindowTitle setToolTip setStatusTip setPlaceholderText addAction QLabel QPushButton abort HttpResponse
set_title setHorizontalHeaderLabels setTitle setHeaderLabels setLabelText QAction QGroupBox QCheckBox QRadioButton addTab addMenu addItem addItems Window Text click\\.echo UsageError BadParameter ClickException CommandError input
addRow \\w*[tT]able\\.add_(?:column|row) add_argument_group add_command add_cascade add_checkbutton
message_user QMessageBox\\.\\w+ set_title set_xlabel set_ylabel xlabel ylabel suptitle reply_text alert models\\.(?!OneToOne|ManyToMany)\\w+Field InputRequired DataRequired fields\\.[A-Z]\\w* setSuffix setPrefix Q\\w{0,30}Item Markdown markdown metric st\\.(?:(?:sub)?header|caption|title|write|info|text|expander|radio|spinner|toast|\\w{1,20}_input) \\w*[fF]ont\\w*\\.render (?!OneToOne|ManyToMany)\\w+Field SubmitButton parser\\.error
`),
  codeCall: callOf(`
option_add get getattr setattr hasattr delattr pop setdefault os\\.environ\\.get getenv open join split strip replace startswith endswith find encode decode format_map
strftime strptime render render_template redirect url_for reverse path re_path include route add_url_rule getLogger import_module filter
exclude order_by values values_list annotate execute fetch add_argument Column ForeignKey OneToOneField ManyToManyField GenericRelation relationship Table String field namedtuple Enum
TypeVar NewType patch Mock assertEqual assertIn assertRaises raises mark sub match search compile fullmatch findall loads dumps
register command option connect emit select_one find_element find_element_by_id css xpath urlopen request post put delete head Path
get_object_or_404 isinstance warn deprecated parametrize set_cookie get_json create_engine text migrate
`),
  printingCall: callOf("print style\\.[A-Z]+ stdout\\.write"),
  terminalFile: /\(\s?(?:\w{1,40}\.)?(?:\w{0,30}Command|\w{0,20}Job)\s?[,)]/,
  namingCall: callOf("setdefault setattr setProperty"),
  developerCall: /(?:^|\.)(?:log|logger|logging|LOG|_logger|_LOGGER)\.\w+$/,
  errorCall: /(?:^|\.)\w*(?:Error|Exception|Warning)$/,
  textMember: /(?:^|\.)(?:title|short_description|verbose_name|help_text|label|site_header)$/,
  codeTemplate: never,
};
