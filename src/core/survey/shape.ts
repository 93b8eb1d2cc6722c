import { isStatement } from "../text/queries.js";
import { rawElements } from "../source/readers/markup/raw-elements.js";
/** What a literal's text looks like, whatever the code does with it. */
export interface Shape {
  readonly name:
    | "technical"
    | "datePattern"
    | "identifier"
    | "classList"
    | "sentence"
    | "capitals"
    | "words"
    | "capitalized"
    | "lowerCase"
    | "other"
    | "short";
  /** In words: “looks like a path”. */
  readonly reason: string;
  /** Letters of a script that code is not written in. */
  readonly otherScript: boolean;
}

const technical: readonly (readonly [RegExp, string])[] = [
  [/^(?:[a-z][a-z0-9+.-]*:)?\/\/\S+$/i, "a URL"],
  [/^[a-z][\w+.-]*(?::[a-z][\w+.-]*)*:\/\/\S*$/, "a URL"],
  [/^data:[\w/+.-]{1,60};base64,/, "a URL"],
  [/^[:=\s]{0,3}(?=\S{0,200}\/)\S{1,200}\.[a-z]{2,5}\?[\w[\]-]{1,60}=\S{0,300}$/, "a URL"],
  [/^(?:mailto|tel|data|blob|about|javascript|file|urn|sms|ws|wss|https?):\S*$/i, "a URL"],
  [/^[\w.+-]+@[\w-]+\.[\w.-]+$/, "an e-mail address"],
  [/^\.{0,2}\/[\w@~:?&=%#.,[\](){}*$/-]*$/, "a path"],
  [/^(?:[\w@~-]+\/)+[\w@.*-]*$/, "a path"],
  [
    /^[\w-]+\.(?:js|jsx|ts|tsx|mjs|css|scss|json|html?|png|jpe?g|svg|gif|webp|ico|md|txt|pdf|xml|csv|ya?ml|woff2?|mp[34])$/i,
    "a file name",
  ],
  [/^#(?:[0-9a-f]{3,4}|[0-9a-f]{6}|[0-9a-f]{8})$/i, "a color"],
  [
    /^(?:true|false|null|none|on|off|yes|no|\d+)(?:,(?:true|false|null|none|on|off|yes|no|\d+))+$/,
    "values of a program",
  ],
  [/^\.[a-z]\w{0,60}(?:, ?\.[a-z]\w{0,60}){0,60},?$/, "a list of columns"],
  [/^[a-z_]{2,30}(?::[^|\s]{0,60})?(?:\|[a-z_]{2,30}(?::[^|\s]{0,60})?){1,20}$/, "rules for a value"],
  [
    /^(?=.{0,300}[_.:\d])[a-z_]\w{1,30}(?:[ :][\w.,%-]{1,80})?(?:\|[a-z_]\w{1,30}(?:[ :][\w.,%-]{1,80})?){1,20}$|^(?:not_)?in (?:%s|\d+(?:,\d+)*)$/,
    "rules for a value",
  ],
  [/^([a-z])[a-z_]{2,40} \1$/, "SQL"],
  [/^[a-z]\w{0,30}\.\w{1,60} ?= ?[a-z]\w{0,30}\.\w{1,60}(?: AND |$)/, "a condition of a query"],
  [/^(?:ge|le|gt|lt|eq|ne) \d+$|^(?:not_)?in (?:%s,)*%s$/, "rules for a value"],
  [/^[\w./-]{1,80}\.(?:php\d?|html?|aspx?|jsp|cgi|do)\?[\w[\]-]{1,60}=\S*$/, "a URL"],
  [/^(?=[A-F]*\d)[0-9A-F]{6}$/, "a color"],
  // A name that parts of are filled into: `row[%s]`, `tree.%s.name`.
  [
    /^(?=[^%]{0,80}%[sd])(?=\S{0,80}[[\]._])(?!\S{0,200}(?<![\w-])[A-Z\d])(?:[\w.[\]-]|%[sd])+$/,
    "the pattern of a name",
  ],
  [/^[?&][\w.[\]-]{1,60}=\S*$/, "part of an address"],
  // What stands around the values of one: `http://%s:%s`.
  [/^[^\p{L}\p{N}]{0,20}(?:https?|ftp|wss?|file|mailto):[^\p{L}]{0,30}$/u, "part of an address"],
  [
    /(?:^|\n)[ \t]{0,40}(?:(?:if|elif|while) \[\[? |(?:fi|done|esac)[ \t]{0,9}(?:\n|$)|[^\n]{0,200}; (?:then|do)[ \t]{0,9}\n|#!\/)/,
    "a script of a shell",
  ],
  [/^\s{0,40}def \w{1,60}[!?]?(?:\([^()]{0,200}\))?[ \t]{0,9}\n/, "code"],
  [/^new [A-Z]\w{0,60}\(/, "code"],
  [/^\s{0,20}(?:import|include|require|use)\s["'<][^"'<>\n]{1,80}["'>];?$/, "code"],
  [/^Connection: ?(?:close|keep-alive|Upgrade)\b/i, "a header"],
  [/^\[\w{1,40}\] [A-Z_]{2,40}$/, "a mark of a program"],
  [
    /^[A-Z]\w{0,30}(?: [\w+#-]{1,30}){0,4}(?: :: [\w+#-]{1,30}(?: [\w+#()./-]{1,30}){0,6}){1,9}$/,
    "a class in a list of such",
  ],
  // What opens a string and ends in it: `echo '`.
  [/^\s{0,9}(?:\S{1,40} )?[a-z]{2,20} ?['"]$/, "code"],
  [/^[\w$.]{1,80}\(['"]?$|^['"]\s?,[^]{0,80}\);?$|^\$\w{1,40}(?:\[[^\]]{0,80}\])+\s?=?$/, "code"],
  [/^(?:[a-z][\w-]{1,60}=(?:"[^"<>]{0,200}"|'[^'<>]{0,200}')\s{0,9})+$/, "attributes of an element"],
  [/^(?:true|false|null|undefined|nil)$/, "a value of a program"],
  [/\\[a-z]{3,30}\{/, "TeX"],
  // As those for typesetting write it: `\version "2.24"`.
  [/^\s?(?:-\s?)?\\[A-Za-z]{2,30}(?: ["#<{\\\d-]|\s?$)/, "a command for typesetting"],
  [/^\s?-\*- ?[\w-]{2,40}[;:]/, "settings of an editor"],
  [/^[#.][A-Za-z][\w-]{0,60}(?:[ >+~]{1,3}[#.][A-Za-z][\w.#:-]{0,60}){1,9}$/, "a selector"],
  [/^(?:%[sd]|\[\/?[a-z]{1,8}\]|[^\p{L}%[])+$/u, "marks around values"],
  [/^[A-Z]{3,20}:'?[^\s'=:]{1,60}['=:,]\S/, "a command of another program"],
  [/^(?:[^\n:]{0,80}:\n)?(?: {0,20}(?:- )?[a-z]\w{0,60}:(?: [^\n]{0,300})?\n){4}/, "settings"],
  [
    /^\s{0,40}(?:\}\s{0,9})?(?:else\s?\{\s|(?:if|for|while|switch)\s?\([^]{1,200}\)\s?\{|(?:var|let|const)\s\w{1,40}\s?=|return\s[\w.$()'"]{1,60};\s{0,9}$|function(?:\s\w{1,60})?\s?\([\w$, ]{0,100}\)\s?\{)/,
    "code",
  ],
  [
    /^[a-z]{2,12}-(?:src(?:-[a-z]+)?|uri|ancestors|action) (?:'(?:self|none|unsafe|nonce|sha)|https?:|data:|blob:|\*)/,
    "a policy for content",
  ],
  [
    /^\s?(?:(?:repeating-)?(?:linear|radial|conic)-gradient|translate(?:3d|[XYZ])?|rotate(?:[XYZ]|3d)?|scale(?:[XYZ]|3d)?|skew[XY]?|matrix(?:3d)?|cubic-bezier|calc|clamp|minmax|repeat|hsla?|rgba?|url|var)\(/,
    "a CSS value",
  ],
  [
    /^[:.#*]{1,2}[\w-]{1,60}(?:[ ,>+~]{1,3}[:.#*]{0,2}[\w-]{1,60}){0,4} ?\{(?![{%])[^{}]{0,200}\}?$/,
    "a CSS rule",
  ],
  [/^(?:px|r?em|v[hw]|deg)(?:[;,)]|$)/, "a CSS size"],
  [
    /^(?:display|visibility|color|width|height|margin|padding|border|background|font|text-align|float|opacity|overflow|cursor|z-index)(?:-[a-z]{1,20}){0,2} {0,2}: {0,2}[\w#.%-]{1,40}(?: [\w#.%-]{1,40}){0,3};?$/,
    "a CSS declaration",
  ],
  [
    /[\w\])*] ?> ?[a-z*.#[][\w-]*(?:\[[\w-]+[~|^$*]?=|:(?:nth|first|last|not)-?)|[\w.#]\[(?:data|aria)-[\w-]+(?:=|\])|:nth-child\(/,
    "a CSS selector",
  ],
  [
    /\(\s?(?:select|SELECT)\s[^]{1,200}\s(?:from|FROM)\s|(?<!\w)[a-z]{1,40}_\w{1,40} = (?:NULL|[a-z]{1,40}_\w{1,40}|\d{1,9})(?:,|$)/,
    "SQL",
  ],
  [
    /\b[a-z]\w{1,40}: ?(?:true|false|null|'[^']{0,40}'|-?\d+|\{)\s?,\s{0,9}\w{1,40}: ?(?:true|false|null|'|-?\d|\{|$)/,
    "the settings of a program",
  ],
  [
    /^-?[\d.]+(?:px|r?em|%)?\s+(?:solid|dashed|dotted|double|auto|ease|linear|0|-?[\d.]+(?:px|r?em|%))\b/,
    "a CSS value",
  ],
  [
    /^(?:rgba?|hsla?|var|calc|url|linear-gradient|translate[XY]?|scale|rotate|cubic-bezier|repeat|minmax|clamp)\(.*\)$/i,
    "a CSS value",
  ],
  [
    /^-?[\d.]+(?:px|r?em|%|v[hw]|ch|fr|m?s|deg|pt|dppx)(?:\s+(?:-?[\d.]+(?:px|r?em|%|v[hw])|auto|0))*$/,
    "a CSS size",
  ],
  [/^(?=\D*\d)[MmLlHhVvCcSsQqTtAaZz][\d\s.,MmLlHhVvCcSsQqTtAaZzEe-]*$/, "the path of a drawing"],
  [/^(?:application|audio|font|image|model|multipart|text|video)\/[\w.+*-]+(?:;.*)?$/, "a media type"],
  [
    /^[("'`]{0,3}(?:SELECT\s(?:@@|[\w`".]+[(,]|DISTINCT\b|\*)|(?:INSERT|REPLACE)\s(?:IGNORE\s)?INTO\b|DELETE\s(?:\S+\s+)?FROM\b|UPDATE\s{1,3}(?:\S+\s+)?(?:\w+\s+)?(?:SET|set)\b|COMMENT\s(?:=\s|ON\s(?:TABLE|COLUMN|INDEX|FUNCTION)\b)|SHOW\s(?:FULL\s)?(?:COLUMNS|TABLES|DATABASES|CREATE|INDEX|STATUS|VARIABLES)\b|(?:CREATE|ALTER|DROP|TRUNCATE|alter|create|drop)\s(?:\w+\s)?(?:SESSION|SYSTEM|USER|ROLE|SCHEMA|SEQUENCE|TABLE|INDEX|VIEW|DATABASE|TRIGGER|COLUMN|table)\b|WITH\s\w+\sAS\s?\()/,
    "SQL",
  ],
  [/^[("'`]{0,3}SELECT\s[^]*\bFROM\b/, "SQL"],
  [
    /^(?:(?:tiny|small|medium|big)?(?:int|INT)(?:eger|EGER)?|(?:TINY|SMALL|MEDIUM|BIG)INT|varchar|VARCHAR|char|CHAR|(?:tiny|medium|long)?text|TEXT|datetime|DATETIME|timestamp|TIMESTAMP|date|DATE|decimal|DECIMAL|numeric|NUMERIC|double|DOUBLE|float|FLOAT|bool(?:ean)?|BOOL(?:EAN)?|(?:big)?serial|(?:BIG)?SERIAL)(?: ?\([\d, ]{0,9}\))?(?: (?:unsigned|UNSIGNED|binary|BINARY|(?:with|without) time zone|character set \w{1,20}|CHARACTER SET \w{1,20}|collate \w{1,30}|COLLATE \w{1,30})){0,3} (?:NOT NULL|NULL|not null|default\b|DEFAULT\b|auto_increment\b|AUTO_INCREMENT\b|PRIMARY KEY|primary key|UNIQUE\b|REFERENCES\b)/,
    "a column of a table",
  ],
  [/(?:[#$%@?!=]{3}[^#$%@?!=]{0,40}){4}/, "values of a program"],
  [/^[("'`]{0,3}CASE\s[^]{0,200}\bWHEN\s[^]{0,200}\bTHEN\s/, "SQL"],
  [/^SET\s(?:@\w|NAMES\s|CHARACTER SET\s|(?:SESSION|GLOBAL|LOCAL|TRANSACTION)\s)/, "SQL"],
  [
    /\bfrom [A-Z]\w{0,40}(?: \w{1,20})? (?:where|order by|join|inner join|left join)\b|\bwhere [\w.]{1,60} ?(?:=|<|>|<=|>=|in|like) ?[:?]/,
    "a query",
  ],
  [/^[\w.`"]{1,60}(?:, ?[\w.`"]{1,60}){0,9} (?:ASC|DESC|COLLATE \w{1,30})\b/, "SQL"],
  [
    /^[)( ]{0,9}(?:(?:LEFT|RIGHT|INNER|OUTER|CROSS|FULL)\s(?:OUTER\s)?JOIN|JOIN\s\S+\sON|ORDER BY|GROUP BY|HAVING|WHERE|LIMIT\s\S|UNION(?: ALL)?|ON DUPLICATE KEY|VALUES\s?\(|FROM\s[\w`".]+(?:\s(?:AS\s)?\w+)?$|(?:AND|OR|SET|ON)\s\(*[\w`".{}]+\s?(?:=|<|>|!=|(?:LIKE|IN|IS|BETWEEN)(?:\s|\(|$))|(?:AND|OR|NOT)\s?\()/,
    "SQL",
  ],
  [/(?:^|\s|`)(?:NOT )?(?:LIKE|REGEXP|RLIKE|ILIKE) ?['"]|^SHOW (?:COLUMNS|columns|TABLES|tables)\s/, "SQL"],
  [
    /^[("'`]{0,3}(?:NOT )?(?:EXISTS|COALESCE|CAST|COUNT|CONCAT|IFNULL|NULLIF|LOWER|UPPER|SUM|MAX|MIN|AVG|DISTINCT) ?\(/,
    "SQL",
  ],
  [
    /(?:^|[\s)}])(?:(?:NOT )?(?:IN|EXISTS|LIKE) ?\(|(?:[<>!]?=|LIKE|<>) ?\?(?:$|[\s,)])|BETWEEN (?:\?|:\w+|%s) AND (?:\?|:\w+|%s)|IS (?:NOT )?NULL(?:$|[\s)])|(?:SELECT|FROM|WHERE)\s[\w`".*(]+[\s,][^]*\b(?:FROM|WHERE|AND|SELECT)\b)/,
    "SQL",
  ],
  [
    /^(?=.{1,160}$)[a-z_.]+(?:, ?(?:[a-z_.]+(?:\(\*?[\w.]*\))?(?: as \w+)?))*, ?(?:[a-z_.]*_[a-z_.]*|[a-z]+\(\*?[\w.]*\)(?: as \w+)?)(?:, ?[a-z_.]+)*$/i,
    "a list of columns",
  ],
  [
    /^(?=.{1,80}$)[.\s]{0,3}[a-z]\w{0,40}(?:\.\w{1,40})? (?:-|\+|\*|=) (?:\w{1,40})?\.\w{1,40}(?: = \d+)?$|^\.\w{1,40}_\w{1,40} ?(?:=|IN|\()/,
    "a condition of a query",
  ],
  [
    /^[a-z_]\w*(?:\.\w+)? (?:asc|desc|ASC|DESC)(?:, ?[\w.]+(?: (?:asc|desc|ASC|DESC))?)*$/,
    "the order of a query",
  ],
  [
    /^[a-z_]\w* ?(?:=|<>|!=|<=|>=|<|>|LIKE|IN) ?(?:\?|:\w+|%s|'[^']*'|\([^)]*\))?(?: (?:AND|OR|and|or) [\w.]+ ?(?:=|<>|!=|<=|>=|<|>|LIKE|IN|IS)[^]*)?$/,
    "a condition of a query",
  ],
  [
    /^(?:[Cc]ontent-(?:[Tt]ype|[Dd]isposition|[Ll]ength|[Ee]ncoding|Security-Policy|[Tt]ransfer-[Ee]ncoding)|Cache-Control|Location|Set-Cookie|Accept|Authorization|Access-Control-[\w-]+|(?:X|Proxy|User|If|Sec|Transfer|Retry|Strict|Keep)(?:-[A-Z][A-Za-z]{1,30}){1,4}|Expires|Pragma|Last-Modified|WWW-Authenticate|MIME-Version):(?:\s|$)/,
    "a header",
  ],
  [/^(?:[\w:-]+=(?:"[^"]*"|'[^']*')(?:\s|$|(?=\/?>)))+\/?>?$/, "attributes of markup"],
  [/^(?:selected|checked|disabled|readonly|multiple|hidden|required)$/, "an attribute of markup"],
  [/^(?:[a-z_]{1,40}:"[^"]{0,200}"\s{0,4}){1,20}$/, "the tags of a field"],
  [/(?:^|[\w'")\]]) ?(?:[!=]==?|&&|\|\|) ?(?:[\w'"(!$-]|$)/, "a condition"],
  [/^\W{0,4}[\w.-]{1,40} ?=["']?$|^["'] [\w-]{1,40}=["']$/, "a name before its value"],
  [/^(?:attachment|inline|form-data); ?\w+=/, "a header"],
  [/^["']? ?[\w-]{1,40}=[^\s<>]{1,60}>$/, "part of a tag"],
  [/^["'] ?[\w:-]{1,40}=["'][^"'<>]{0,80}["'](?:\s|$)/, "part of a tag"],
  [/^[^<>"]{0,80}"(?:\s[\w:-]{1,40}(?:=[^\s"<>]{1,60})?){1,6}\s?\/?>/, "part of a tag"],
  [/^\$[A-Za-z_][\w>[\]-]{0,60}$/, "a placeholder"],
  [/^(?:\\[nrtv0]){1,9}$/, "an escape"],
  // Signs that nothing shows; those before a bracket color what a terminal does.
  [/[^\P{Cc}\s\u0080-\u009f](?!\[)/u, "bytes for a program"],
  [/^(?:\[\s{0,9})?\{\s{0,9}["'][\w$.-]{1,40}["']\s{0,4}:/, "an object of a program"],
  [
    /^(?:window|document|self|parent|opener|jQuery|\$)\.[\w$.[\]'"]{1,200}\([^()]{0,100}\);?$/,
    "a line of a script",
  ],
  [/^(?:@echo (?:off|on)\b|REM\s|#!\/)/, "a line of a script"],
  [
    /^(?:utf-?(?:8|16|32)(?:[bl]e)?|iso-?8859-?\d{1,2}|us-ascii|windows-?125\d|shift[-_]jis|euc-(?:jp|kr)|gb(?:2312|18030)|big5|koi8-[ru])$/i,
    "the name of an encoding",
  ],
  [
    /^(?:MIT|ISC|Expat|Zlib|Unlicense|(?:Apache|BSD|A?L?GPL|MPL|EPL|EUPL|CDDL|Artistic|CC(?:0|-BY(?:-SA)?))-v?\d[\w.]{0,9}(?:-[A-Za-z]{1,9}){0,3})$/,
    "the name of a license",
  ],
  [/^(?:\p{Extended_Pictographic}|\uFE0F|\u200D|\u20E3| )+$/u, "nothing but picture signs"],
  [/^["'(]?%{1,2}[\w{}.]{1,60}%{1,2}["')]?$|^%{1,2}[a-z_]\w{0,40}$/, "a placeholder"],
  [/^[a-z][\w-]{0,40}(?:\.[\w-]{1,40}){1,6}\[[^[\]]{0,300}\]$/, "a call with its parameters"],
  [
    /^(?=[^%]{0,40}%)(?:[^\p{L}\p{N}%]|%(?:\(\w{1,60}\)|\d\$)?[-+0#]{0,3}\d{0,3}(?:\.\d{1,3})?[sdifgxXr@])+$/u,
    "nothing but placeholders",
  ],
  [/^(?=[^{]{0,40}\{)(?:[^\p{L}\p{N}{}]|\{\w{0,40}\})+$/u, "nothing but placeholders"],
  [/^%(?:\d\$)?[-+0#]{0,3}\d{0,3}(?:\.\d{1,3})?[a-zA-Z]$/, "a placeholder"],
  [/^(##|@@|__|%%|\|\||\$)[\w.:-]{1,60}\1$/, "a placeholder"],
  // What a part of a page is bound to: `::cart.total`, `=boatName`.
  [/^(?:::|[=&<]\??)[A-Za-z_$][\w$]{0,60}(?:\.[\w$]{1,60}){0,6}$/, "a value that is bound"],
  [/^[A-Za-z_$][\w$]{0,60}[a-z][A-Z][\w$]{0,60} as [a-z$]\w{0,40}$/, "a part of a program with its name"],
  // The rest of a list of values, of which the first is nothing: `,hidden`.
  [/^,[a-z]{1,20}(?:-[a-z]{1,20}){0,4}(?:=["'][^"']{0,60}["'])?$/, "a value of a program"],
  [
    /^\s{0,40}<\?xml\s|^\s{0,40}<(?!html\b)[\w:-]{1,60}\s(?:[\w:-]{1,40}="[^"]{0,200}"\s{1,9}){0,5}xmlns(?::\w{1,40})?=/,
    "XML for a program",
  ],
  // What a program that counts is asked for: a line for each number, as OpenMetrics has it.
  [/^#\s(?:HELP|TYPE|UNIT)\s\w/, "a line for a program that counts"],
  [/^(?:COMMIT|ROLLBACK|VACUUM|BEGIN(?: TRANSACTION)?|END(?: TRANSACTION)?|PRAGMA [\w =]{1,40});/, "SQL"],
  [/^\s*[a-z][\w./-]{0,40} (?:\[[\w. -]{1,40}\]|--?[a-z])/, "a command"],
  [/^(?:Bearer|Basic|Digest|Token)$/, "how somebody signs in, as a header says it"],
  [/^HTTP\/\d(?:\.\d)?\s/, "a header"],
  // RFC 9110, 9.1 and 12.4.2; `DELETE` may be a button.
  [/^(?:GET|POST|PUT|PATCH|HEAD|OPTIONS|TRACE|CONNECT)$/, "a method of HTTP"],
  [/^[\w*/+.-]{1,40}(?:, ?[\w*/+.-]{1,40}){0,9}; ?q ?= ?[01](?:\.\d{1,3})?(?:,|$)/, "a header"],
  [
    /^[A-Z][\w-]{1,40}: ?[^\r\n]{0,200}\r\n(?:$|[A-Z][\w-]{1,40}:)|^(?:From|Reply-To|Cc|Bcc|Return-Path): ?\S*@/,
    "a header",
  ],
  [
    /^(?:[a-z0-9][a-z0-9-]{0,60}\.){1,6}(?:com|org|net|io|dev|app|info|example|test|local|[a-z]{2})$/,
    "the name of a host",
  ],
  [/\[\[\w[\w/-]{0,60}[:.][\w.{}-]{0,80}(?:,[^\][]{0,200})?\]\]/, "a mark for a key"],
  [
    /^(?:[^\p{L}\p{N}[\]]{0,4}\[{2,3}[#/^>&]? ?[\w.]{1,60} ?\]{2,3}){1,9}[^\p{L}\p{N}[\]]{0,4}$/u,
    "a placeholder",
  ],
  [/^(?:\{{1,2} ?[$#]?[\w.[\]/:@-]+ ?\}{1,2} ?)+$/, "a placeholder"],
  // A block that nothing closes.
  [/^\{\{[#/^>!] ?\w/, "code of a template"],
  [/^\{{2,3}[^{}]{1,300}\}{2,3}$|^\{%[^%{}]{1,300}%\}$|^\{\$[^{}$]{1,300}\$\}$/, "code of a template"],
  [/^!?(?=[^\s*]{0,200}\*)(?=\S{0,200}(?:\/|\*\.))[\w@.{},/*?[\]-]{3,200}$/, "a pattern of paths"],
  [/#\{[a-z_][\w.]{0,60}(?:\([^(){}]{0,40}\)[\w.]{0,40}){0,3}\}/, "code that a program puts together"],
  [/^\W{0,4}(?:[\w-]{0,40}(?:\.[\w-]{1,40}){1,4}(?:, | ){0,1}){2,12}$/, "names of hosts or files"],
  [/^\s*<[a-z!/][\s\S]*>\s*$|^\s*<%(?:\d\$)?s[\s>]|^\s*<\s[\w-]{1,40}=["']/i, "markup"],
  [/^[.#][\w-]+(?:[\s>+~,]+[.#]?[\w-]+(?:\[[^\]]*\])?)*$/, "a CSS selector"],
  [/^[\w.#:\s,>*-]+\{\s*[\w-]+\s*:[^}]*\}/, "a style sheet"],
  [/^\[[\w-]+(?:[~|^$*]?=.*)?\]$/, "a CSS selector"],
  [/^(?:[0-9a-f]{8}-){1}(?:[0-9a-f]{4}-){3}[0-9a-f]{12}$/i, "an identifier"],
  [/^(?=.*\d)[A-Za-z0-9+/_-]{24,}={0,2}$/, "an encoded value"],
  [/^\(\s*(?:min|max|prefers|orientation|hover|pointer)[\w-]*\s*(?::.*\)|\))$/, "a media query"],
  [/^([/~#%])(?=[^]{0,300}[|\\()[\]+*?^$])[^\s][^]{0,400}\1[imsuxADSUXJ]{0,6}$/, "a regular expression"],
  [/<\?(?:php|=)|<%[=#-]?\s|\?>\s*$|<#[-=]?\s|(?:^|\s)#>/, "code of a template"],
  [/^\s*\/\*\*/, "a comment of code"],
  [/^\s*(?:'[^'\n]{0,80}'|"[^"\n]{0,80}"|\$?\w{1,60}) ?=> ?(?:array\(|\[|\{)\s*$/, "code"],
  [/\(\?(?:[:=!]|<[=!]|P?<\w+>|[imsux]+[:)])|\[\^[^[\]]+\]/, "a regular expression"],
  [
    /\((?:\.|\\[dDwWsS])[+*]\??\)|\\[dDwWsS](?:[+*]|\{\d)|[^.\s*]\.\*$|[^.]\.[*+]\?[^\p{L}]/u,
    "a regular expression",
  ],
  [/^<<[\w-]+>>$/, "the name of an event"],
  [/^2-digit$/, "an option of date formats"],
  [/^@(?:media|supports|container|keyframes|import|font-face|layer)\b/, "a rule of a style sheet"],
  [/!important\s*$|^(?:solid|dashed|dotted)$/, "a CSS value"],
  [/^(?:\s*["']?[\w-][\w -]*["']?,)+\s*(?:sans-serif|serif|monospace|cursive)\b/, "a list of fonts"],
  [/^\\[0-9a-f]{3,5}$/i, "a character of an icon font"],
  [/^[a-z]{2,3}(?:[-_][A-Za-z]{2,4})+$/, "a locale"],
  [/^(?:use strict|use client|use server)$/, "a directive"],
  [/^(?:(?:Ctrl|Cmd|CtrlCmd|Alt|Shift|Meta|Mod|Option|Command)\s?[+-]\s?)+\S+$/i, "a keyboard shortcut"],
  [/^(?:Escape|Backspace|Arrow(?:Up|Down|Left|Right)|Page(?:Up|Down)|F\d{1,2})$/, "the name of a key"],
  [/^(?!.{1,80}\S {2,}\S+ \S)--?(?:\[no-\])?[a-z][\w-]*(?:[ =,[].*)?$/i, "an option of a command"],
  [/^(?:debug|trace|info|warn|todo|fixme): /, "a line of a log"],
  // In capitals, and what is to be done behind it: `TODO` is a word of some languages.
  [/^(?:TODO|FIXME|XXX):? [a-z]/, "a note for developers"],
  [/^[\w-]+=[\w.-]+(?:[,;]\s*[\w-]+=[\w.-]+)*$|^[\w-]{1,40}=\d[\d,.-]{0,40}$/, "settings by name"],
  // A string of a script inside of another string: `'+boat+'`.
  [/^['"] ?\+ ?[\w$.[\]()]{1,80} ?\+ ?['"]/, "code"],
  [/^[A-Za-z][\w-]{0,40}=[\w.%()-]{1,60}(?: [A-Za-z][\w-]{0,40}=[\w.%()-]{1,60}){1,9}$/, "settings by name"],
  [/^, ?(?:true|false|null|\d{1,9})$/, "values of a program"],
  [/"[\w-]{0,40}": ?(?:true|false|null|-?\d)/, "an object of a program"],
  [/^[\w$]{1,40}\([^()]{0,80}\)(?:\.\w{1,40}){1,4} ?= ?[^=][^]{0,200};$/, "code"],
  [/^['"];? ?(?:var|let|const) \w{1,60} ?= ?['"]?$/, "code"],
  [/^, ?\w{1,40}: ?\w{1,60}\([^()]{0,200}\)?$/, "code"],
  [/^\(?[?&][\w-]+=[\w.-]*(?:&[\w-]+=[\w.-]*)*\)?$/, "a query of an address"],
  [/^(?:only |not )?(?:screen|print|all|speech)\b(?=.*\([\w-]+\s*[:<>=]).*\)$/, "a media query"],
  [/^&[a-z0-9#]+;$/i, "a character reference"],
  [/^(?=[^]{0,80}\\[bBdDsSwWAZ])(?:\\[a-zA-Z]|[^\p{L}\\]){1,80}$/u, "a regular expression"],
  [/^[^\s\p{Ll}]{0,20}https?:\/\/\S+$/u, "an address"],
  [/^\{(\w{1,20})\}[^{}]{1,200}\{\/\1\}$/, "a block of a template"],
  [/^(?:&lt;\/?[a-z][\w-]{0,20}&gt;)+$/i, "a tag"],
  [/^(?=[^,]{0,60}[a-z])[^,\s][^,\n]{0,60}(?:,[^,\s][^,\n]{0,60}){4,60}$/i, "a row of a table"],
];

const known = new Map<string, Shape>();

/** Judges the form of a literal's fixed text. */
export function shapeOf(fixed: string): Shape {
  let shape = known.get(fixed);
  if (!shape) {
    // Code repeats its words; what a file asks for again was asked for not long before.
    if (known.size >= mostKnown) known.clear();
    known.set(fixed, (shape = judgeShape(fixed.trim())));
  }
  return shape;
}

const mostKnown = 2_000;

/** One letter twice, around signs: it stands for eyes. */
const face = /^[^\p{L}\p{N}\s]{0,3}(\p{L})[^\p{L}\p{N}\s]{1,3}\1[^\p{L}\p{N}\s]{0,3}$/u;

/** Several words of letters alone, one of them long: nothing that programs read looks like this. */
const prose = /^[A-Z]?[a-z]+(?: [A-Z]?[a-z]+)+(?<! [b-z])([.!?…])?$/;

/** Lines of a program, as strings hold them that are written into pages or files: how they begin, and how they end. */
const codeLines: readonly (readonly [begins: RegExp, ends: RegExp])[] = [
  [/^\/[/*]/, /\S$/],
  [/^[{}()[\];,]+$/, /\S$/],
  [/^(?:export |async )?(?:async )?function\b/, /[){;]$/],
  [/^(?:var|let|const) [\w$]+/, /[;={([,]$/],
  [/^\}? ?(?:else )?(?:if|for|foreach|while|switch|catch) ?\(/, /[{;)&|]$/],
  [/^\}? ?else ?\{?$/, /\S$/],
  [/^(?:return|throw|echo|print|require|include|import|use|namespace|from|package|using)\b/, /;$/],
  [/^[\w$.[\]'">-]+ ?[-+.]?= ?[^=]/, /;$/],
  [/^!?[\w$.>:-]+\(/, /\);?$/],
  [/^[\w$.>:-]+ \(/, /\);$/],
  [/^[\w$.]+\([^()]*\)(?:\.[\w$]+(?:\([^()]*\))?|\[[^\]]*\])* ?[-+]?= ?[^=\s]/, /;$/],
  [/^['"]?[\w-]+['"]? ?(?:=>|:) ?\S/, /[,;{]$/],
  [/^,? ?['"][\w-]+['"] ?=> ?\S/, /\S$/],
  [/^[.#]?[\w-]/, /\{$/],
  // Of a shell: commands that every system has, and remarks between them.
  [
    /^(?:sudo |exec )?(?:echo|chmod|chown|cp|mv|rm|mkdir|service|systemctl|apt-get|yum|dnf|cat|sed|grep|awk|hostname|export|cd|ln|touch|kill|mount|umount|curl|wget|tar|ifconfig|useradd)\s+\S/,
    /\S$/,
  ],
  [/^# \S/, /\S$/],
];

/** Lines longer than this are no lines that somebody wrote. */
const longestLine = 500;

function isCodeLine(line: string): boolean {
  return (
    line.length < longestLine && codeLines.some(([begins, ends]) => begins.test(line) && ends.test(line))
  );
}

/** Whether a text is made of the lines of a program. */
function isCode(text: string): boolean {
  if (text.length > 20_000 || !/[;{}()=$>]|\/\//.test(text)) return false;
  if (text.length > 60 && /[;{]/.test(text) && /[=(]/.test(text)) {
    const marks = text.match(/[{}();=[\]]|=>|->/g)?.length ?? 0;
    if (marks / text.length > 0.06 && /\b(?:function|var|const|let|return|if|foreach|for|new)\b/.test(text))
      return true;
  }
  const lines = text
    .split("\n")
    .map((line) => line.trim())
    .filter((line) => line !== "");
  const [only = ""] = lines;
  // A line alone may be a sentence with a bracket in it: it has to end as code does.
  if (lines.length === 1)
    return /[;{}]$|^\/\/|=>|\)$/.test(only) && isCodeLine(only) && !/^[\p{L}\d]+ ?\([^()]*\)$/u.test(only);
  return lines.filter(isCodeLine).length >= lines.length * 0.7;
}

function judgeShape(text: string): Shape {
  if (isFiller(text))
    return { name: "technical", reason: "fills a page until there is text", otherScript: false };
  if (face.test(text)) return { name: "technical", reason: "looks like a face", otherScript: false };
  if (fonts.test(text)) return { name: "technical", reason: "looks like a font", otherScript: false };
  const plain = prose.exec(text);
  if (plain && /[a-z]{5}/.test(text) && !text.startsWith("use ")) {
    const starts = /^[A-Z]/.test(text);
    if (starts) return severalWords;
    return plain[1] === undefined ? lowerCaseWords : endedWords;
  }
  const otherScript = hasOtherScript(text);
  const shape = (name: Shape["name"], reason: string): Shape => ({ name, reason, otherScript });
  if (isStatement(text)) return shape("technical", "looks like SQL");
  for (const [pattern, what] of technical)
    if (pattern.test(text)) {
      // Markup in a string may hold what users read, as a page does.
      const inside = what === "markup" ? withoutTags(text).trim() : "";
      const found = /\p{L}{2}/u.test(inside) ? shapeOf(inside) : undefined;
      return found && /^(?:sentence|words|capitalized)$/.test(found.name)
        ? found
        : shape("technical", `looks like ${what}`);
    }
  if (/<\/?[a-z][\w-]*(?:\s[^<>]*)?(?:\/?>|$)|^[^<>]*["']\s*\/?>|&[a-z]+;/i.test(text)) {
    // What is left without the markup is what people read.
    const inside = withoutTags(text)
      .replace(/&[a-z]+;|&#\w+;/gi, " ")
      .trim();
    if (inside !== text) {
      const found = /\p{L}{2}/u.test(inside) ? shapeOf(inside) : undefined;
      return found && found.name !== "classList" ? found : shape("technical", "looks like markup");
    }
  }
  if (isCode(text)) return shape("technical", "looks like code");
  if (isDatePattern(text))
    return shape("datePattern", "a date or time in a fixed pattern, where the locale has its own");
  const tokens = text.split(/\s+/);
  if (tokens.length === 1) return shape(...wordShape(text));
  // No blank behind the colon, and no end: `Help:Key Bindings`.
  if (/^[A-Z][a-z]{1,20}:[A-Z][a-z]{1,20}(?: [A-Z][a-z]{1,20}){1,3}$/.test(text))
    return shape("identifier", "looks like the name of a page");
  if (isClassList(tokens)) return shape("classList", "looks like CSS classes");
  if (tokens.every((token) => identifierReason(token) !== undefined))
    return shape("identifier", "every part looks like an identifier");
  if (!tokens.some((token) => /\p{L}{2}|[^\P{L}\p{Script=Latin}]/u.test(token)))
    return shape("short", "no more than single letters");
  if (
    tokens.length > 1 &&
    !/\p{Ll}/u.test(text.replace(/\b0x/g, "0")) &&
    /^[\p{Lu}\W\d_]+$/u.test(text) &&
    !otherScript
  )
    return shape("capitals", "words in capitals");
  // Nothing with two small letters beside each other, and many numbers: a pattern to measure or to print by.
  if (!otherScript && !/\p{Ll}{2}/u.test(text) && (text.match(/\d/g)?.length ?? 0) >= 4)
    return shape("capitals", "numbers and single letters");
  const ends = /[.!?…:。！？؟]["”’»)]?$/.test(text);
  const starts = /^[\p{Lu}\p{Lt}¿¡"“‘«„]/u.test(text);
  const { name, reason } = starts ? severalWords : ends ? endedWords : lowerCaseWords;
  return shape(name, reason);
}

/** Fonts that most computers have. */
const fonts =
  /^(?:Arial|Helvetica|Verdana|Georgia|Tahoma|Calibri|Cambria|Garamond|Palatino(?: Linotype)?|Times(?: New Roman)?|Courier(?: New)?|Trebuchet(?: MS)?|Comic Sans(?: MS)?|Segoe UI|Lucida (?:Console|Grande|Sans(?: Unicode)?)|Consolas|Monaco|Menlo|Helvetica Neue|Open Sans|Source (?:Code|Sans) Pro|Deja[Vv]u (?:Sans|Serif)(?: Mono)?|Liberation (?:Sans|Serif|Mono)|Fira (?:Code|Sans|Mono)|Noto (?:Sans|Serif)(?: Mono)?)$/;

/** The words of the text that pages are filled with until there is one. */
const fillerWords: ReadonlySet<string> = new Set(
  (
    "lorem ipsum dolor sit amet consectetur adipiscing adipisicing elit sed eiusmod tempor incididunt labore dolore magna " +
    "aliqua enim veniam quis nostrud exercitation ullamco laboris nisi aliquip commodo consequat duis aute irure " +
    "reprehenderit voluptate velit esse cillum fugiat nulla pariatur excepteur sint occaecat cupidatat proident culpa " +
    "officia deserunt mollit laborum maecenas faucibus mollis interdum fusce dapibus tellus cursus tortor mauris " +
    "condimentum nibh fermentum massa justo risus vestibulum ligula porta felis euismod semper vivamus sagittis lacus " +
    "augue laoreet rutrum auctor donec ullamcorper metus fringilla cras mattis purus aenean lacinia bibendum nullam " +
    "malesuada etiam eget porttitor praesent phasellus curabitur pellentesque nunc ornare viverra suspendisse integer " +
    "molestie eros volutpat egestas pretium iaculis tincidunt sodales lectus posuere varius blandit"
  ).split(" "),
);

/** Whether a text is that filling: most of its words are such, and nothing else is in it that somebody wrote. */
function isFiller(text: string): boolean {
  const words = text.toLowerCase().match(/\p{L}{3,}/gu) ?? [];
  return words.length > 1 && words.filter((word) => fillerWords.has(word)).length * 10 >= words.length * 7;
}

/** Whether a text has letters that code is not written in; faces that are drawn with such letters are no words. */
function hasOtherScript(text: string): boolean {
  if (!/[^\P{L}\p{Script=Latin}\p{Script=Common}]/u.test(text.replace(/[µΩπΔ]/g, ""))) return false;
  return /\p{L}{2}/u.test(text) || (text.match(/[\p{P}\p{S}]/gu)?.length ?? 0) < 4;
}

const severalWords: Shape = {
  name: "sentence",
  reason: "several words that start with a capital",
  otherScript: false,
};
const endedWords: Shape = { name: "sentence", reason: "several words with an end mark", otherScript: false };
const lowerCaseWords: Shape = { name: "words", reason: "several words", otherScript: false };

/** Letters of date patterns (UTS #35 Part 4, "Date Format Patterns", or strftime's) with marks between them. */
function isDatePattern(text: string): boolean {
  if (text.length > 30 || /[a-z]{5}/i.test(text)) return false;
  if (isSkeleton(text)) return true;
  const isWhole = /^%?[yYMdDHhmsSaAEeLQwzZXxGukpIjBb](?:%?[yYMdDHhmsSaAEeLQwzZXxGukpIjBb]|[-/.:, T'])*$/.test(
    text,
  );
  return isWhole && /[yY]{2,4}|%[YymdHM]|[Hh]{1,2}:mm|dd?[./-]M{1,2}/.test(text);
}

/** Runs of one letter each, as patterns spell the parts of a date: `EEE d`, `dddd, D. MMMM`. */
function isSkeleton(text: string): boolean {
  const runs = text.match(/[A-Za-z]+/g) ?? [];
  return (
    runs.length > 1 &&
    runs.every((run) => /^(?:([EGyYMLdDHhkmsSaAQwWzZXx])\1{0,4}|Do)$/.test(run)) &&
    runs.some((run) => run.length > 1) &&
    /^[A-Za-z\s.,:/'[\]-]+$/.test(text)
  );
}

/** Words of two letters in languages that interfaces are written in; with others a capital begins a sign: `Hz`, `Cb`. */
const shortWords: ReadonlySet<string> = new Set(
  (
    "ad ah am an as at ax be by do eh ex go he hi id if in is it me my no of oh ok on or ox pi so to tv uh um up us vs we " +
    "mo tu th fr sa su di mi so lu ma gi sá st ne út pá čt ja je es er ob um im zu da wo du en et au de du il la le ma ne ni nu on os ou sa se si su ta te tu un ve va vo al el lo mi " +
    "ya yo eu ao as os na no em um ai di al ci gli ha ho io av av ei et og på ut at du vi ni är på jo ei no se me he te"
  ).split(" "),
);

function wordShape(word: string): [Shape["name"], string] {
  const identifier = identifierReason(word.replace(/^(["'])(.*)\1$/, "$2"));
  if (identifier) return ["identifier", identifier];
  if (word.replace(/[^\p{L}]/gu, "").length < 2) return ["short", "a single letter"];
  if (/^[A-Z][A-Z0-9+-]+$/.test(word)) return ["capitals", "a word in capitals"];
  if (/\p{Ll}\p{Lu}/u.test(word)) return ["other", "a name with a capital in it"];
  if (/^[A-Z][a-z]$/.test(word) && !shortWords.has(word.toLowerCase()))
    return ["short", "a sign of two letters"];
  if (/^\p{Lu}/u.test(word)) return ["capitalized", "a word with a capital"];
  if (/^[\p{Ll}][\p{Ll}'’-]*$/u.test(word)) return ["lowerCase", "a single word in lower case"];
  return ["other", "a single word"];
}

function identifierReason(word: string): string | undefined {
  if (/^[a-z][a-z0-9]*(?:[A-Z][a-z0-9]*)+$/.test(word)) return "looks like a camelCase name";
  if (/^[A-Z]{1,4}[a-z0-9]+(?:[A-Z][a-z0-9]+)+[A-Z]{0,4}$/.test(word)) return "looks like a PascalCase name";
  if (/^[A-Za-z][A-Za-z0-9]*(?:_{1,3}[A-Za-z0-9]+)*(?:_{1,3}[A-Za-z0-9]+|_)$/.test(word))
    return "looks like a snake_case name";
  if (/^[a-z][a-z0-9]*(?:-[a-z0-9]+)+$/.test(word)) return "looks like a kebab-case name";
  if (/^[a-z0-9]+(?:[-_][a-z0-9]+)+$/.test(word) && /_/.test(word)) return "looks like a name with marks";
  if (/^![A-Za-z]\w*$/.test(word)) return "looks like a condition";
  if (/^\d+(?:x[ls]|[xsml])$/.test(word)) return "looks like the name of a size";
  if (
    /^(?:X|Content|Accept|Cache|Set|If|Access|Last|User|Proxy|Sec|Transfer|WWW|Retry|Strict)(?:-[A-Z][A-Za-z]*)+$/.test(
      word,
    )
  )
    return "looks like the name of a header";
  if (/^[A-Za-z][\w-]*(?:[.:][A-Za-z][\w-]*)+$/.test(word)) return "looks like a dotted name";
  // The letter behind a line is the key that chooses a menu, in some toolkits.
  if (/^_+[A-Za-z]\w*$/.test(word) && !/^_\p{Lu}\p{Ll}+$/u.test(word))
    return "looks like a name with an underscore";
  if (/^[A-Z]\w*(?:::[A-Z]\w*)+$/.test(word)) return "looks like the name of a class";
  if (/^[@$#][A-Za-z][\w-]*$/.test(word)) return "looks like a name with a mark";
  if (/^[A-Za-z_]\w*[[(].*[\])]$/.test(word)) return "looks like code";
  if (/^[A-Za-z]+\d[\w]*$/.test(word)) return "looks like a name with digits";
  return undefined;
}

function isClassList(tokens: readonly string[]): boolean {
  const plain = tokens.every((token) => /^-?[a-z](?:[-_:/.[\]#%a-z0-9()]*[a-z0-9\])%])?$/.test(token));
  return (
    plain &&
    tokens.some((token) => /[-_:/[\]]|[a-z]\d/.test(token)) &&
    !tokens.some((token) => /[.]$/.test(token))
  );
}

/** A string of markup without its tags, and without what scripts and styles hold. */
function withoutTags(text: string): string {
  let result = "";
  let at = 0;
  for (const { start, end } of rawElements(text)) {
    result += `${text.slice(at, start)} `;
    at = end;
  }
  // A tag may begin in one string and end in another.
  return (result + text.slice(at))
    .replace(/<[^<>]*>/g, " ")
    .replace(/<\/?[a-z][\w-]*(?:\s[^<>]*)?$/i, " ")
    .replace(/^[^<>]*["']\s*\/?>/, " ");
}
