import { callOf, never, type Habits } from "../habits.js";
import { scriptHabits } from "../script/habits.js";

/** C#, with the habits of its desktop and web frameworks. */
export const csharpHabits: Habits = {
  ...scriptHabits,
  textCall: callOf(`
MessageBox\\.Show Show ShowMessage ShowDialog DisplayAlert DisplayActionSheet AddModelError AddColumn TableColumn \\w*[cC]onsole\\.(?:Markup|MarkupLine|Confirm|Ask|Prompt) Markup TextPrompt SelectionPrompt ConfirmationPrompt Alert SetToolTip Toast ToolStripMenuItem
WithMessage Columns\\.Add \\w*Nodes\\.Add \\w*Groups\\.Add \\w*TabPages\\.Add \\w*Items\\.Add Items\\.AddRange Items\\.Insert BadRequest Problem NotFound Conflict NotifyUser AddError ShowError ShowWarning ShowInfo ActionLink SubmitButton
`),
  codeCall: callOf(`
GetValue SetValue GetString GetSection GetConnectionString Contains StartsWith EndsWith IndexOf Replace Split Join Equals Trim Parse TryParse
ParseExact ToString Format MapRoute MapGet MapPost MapControllerRoute AddPolicy RedirectToAction RedirectToPage View PartialView Include Where
OrderBy FromSql ExecuteSqlRaw HasColumnName ToTable HasName GetService Register GetType GetProperty GetMethod OpenRead ReadAllText WriteAllText Combine
Exists GetEnvironmentVariable CreateLogger LogInformation LogWarning LogError LogDebug Regex Uri HttpRequestMessage GetAsync
PostAsync Add ContainsKey TryGetValue Remove FindControl FindResource Invoke SetProperty OnPropertyChanged RaisePropertyChanged nameof Guid
CultureInfo Font FontFamily DateTime Encoding GetEncoding Is AreEqual AddJsonFile UseSqlServer Content Url
`),
  textAt: [[callOf("Option Argument Command"), 1, 9]],
  printingCall: callOf("Console\\.WriteLine Console\\.Write"),
  errorStream: /^Console\.Error\.\w+$/,
  developerCall: /(?:^|\.)(?:_?logger|_?log|Log|Console\.Error|Debug|Trace)\.\w+$/,
  errorCall: /(?:^|\.)\w*(?:Exception|Error)$/,
  textMember:
    /(?:^|\.)(?:Title|Text|Message|Header|Caption|ToolTip|ToolTipText|Label|Placeholder|PlaceholderText|ErrorMessage|StatusMessage|Content|Description|AccessibleName|AccessibleDescription)$/,
  codeTemplate: never,
};
