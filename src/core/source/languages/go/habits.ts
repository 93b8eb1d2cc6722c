import { callOf, never, type Habits } from "../habits.js";
import { scriptHabits } from "../script/habits.js";

/** Go. */
export const goHabits: Habits = {
  ...scriptHabits,
  textCall: callOf(`
http\\.Error Flash AddFlash SetTitle SetText NewLabel NewButton NewWindow ShowInformation ShowConfirm NewCard AddMessage SetError AddError Alert
writeError writeJSONError respondError renderError NewMenuItem NewMenu NewTabItem NewCheck SetPlaceHolder
`),
  codeCall: callOf(`
Get Set Getenv Setenv LookupEnv Join Split Contains HasPrefix HasSuffix Index Replace ReplaceAll Trim TrimPrefix TrimSuffix EqualFold Fields
MustCompile Compile MatchString HandleFunc Handle Open Create ReadFile WriteFile ReadAll Query QueryRow Exec Prepare time\\.Parse url\\.Parse uuid\\.Parse ParseFiles
ParseGlob ExecuteTemplate New Lookup Header Add Del Redirect Format Flag FormValue PathValue URLParam Param
Command LookPath Dial Listen ListenAndServe NewRequest Do Post Unmarshal Marshal Tag Atoi Abs Base Dir Fatal Fatalf Log Logf Errorf Run
Skip Where Order Table Select Find First Joins Preload Group POST GET PUT DELETE PATCH Static Use Sprint WithField WithValue Bind
`),
  textAt: [
    [
      /(?:^|\.)(?:(?:[pP]ersistent|[lL]ocal)?[fF]lags?|fs|pflag)(?:\(\))?\.(?:String|Int|Int64|Uint|Bool|Float64|Duration)$/,
      2,
    ],
    [
      /(?:^|\.)(?:(?:[pP]ersistent|[lL]ocal)?[fF]lags?|fs|pflag)(?:\(\))?\.(?:String|Int|Int64|Uint|Bool|Float64|Duration)(?:P|Var)$/,
      3,
    ],
    [
      /(?:^|\.)(?:(?:[pP]ersistent|[lL]ocal)?[fF]lags?|fs|pflag)(?:\(\))?\.(?:String|Int|Int64|Uint|Bool|Float64|Duration)VarP$/,
      4,
    ],
  ],
  printingCall: callOf("fmt\\.Print fmt\\.Println fmt\\.Printf Fprint Fprintf Fprintln"),
  developerCall: /(?:^|\.)(?:log|logger|slog|zap|klog|glog|logrus|panic|t)(?:\.\w+)?$/,
  errorCall: /(?:^|\.)(?:errors\.New|fmt\.Errorf|Errorf|Wrap|Wrapf|panic)$/,
  textMember: /(?:^|\.)(?:Title|Message|Text|Label|Error|Flash|Notice)$/,
  codeTemplate: never,
};
