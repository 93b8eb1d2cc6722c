import { callOf, nameEndingIn, never, words, type Habits } from "../habits.js";

/** JavaScript, TypeScript and JSX. */
export const scriptHabits: Habits = {
  textAttributes: words(`
  title alt placeholder label summary abbr content-title aria-label aria-description aria-placeholder
  aria-roledescription aria-valuetext aria-braillelabel aria-brailleroledescription
`),
  codeAttributes: words(`
  id class className style href src srcSet srcset sizes type name for htmlFor role rel target method action key ref
  value-key width height viewBox d fill stroke xmlns lang dir tabIndex tabindex autoComplete autocomplete inputMode
  inputmode enctype encType accept pattern media charSet charset property itemProp as is slot part loading decoding
  referrerPolicy crossOrigin integrity nonce form list wrap scope headers http-equiv httpEquiv shape coords usemap
  transform points cx cy r x y rx ry offset gradientUnits preserveAspectRatio translate spellCheck contentEditable
  draggable enterKeyHint popover popoverTarget sandbox allow testId testid color variant size icon to path exact
  align position placement direction layout theme tone severity kind component aria-labelledby aria-describedby
  aria-controls aria-owns aria-live aria-current aria-haspopup aria-hidden aria-expanded aria-invalid aria-sort
  aria-orientation aria-autocomplete aria-relevant aria-activedescendant aria-checked aria-pressed
`),
  codeElements: words("code pre kbd samp var script style"),
  textName: nameEndingIn(`
title subtitle header label text heading headline caption message messages description placeholder tooltip
hint summary question answer greeting note notice warning legend alt cta copy prompt tagline intro
blurb breadcrumb helpText confirmation instructions? subject footnote disclaimer reason
`),
  textPrefix:
    /^(?:title|label|text|msg|message|heading|caption|hint|tooltip)(?=[A-Z_])|^(?:TITLE|LABEL|TEXT|MSG|MESSAGE)_/,
  textHolder:
    /(?:^|[._]|[a-z])(?:[eE]rrors?|[mM]essages?|[lL]abels?|[tT]exts?|[tT]itles?|[hH]eadings?|[cC]aptions?|[tT]ooltips?|[hH]ints?|STRINGS|LABELS|MESSAGES|TITLES|ERRORS)$|^[Ss]trings$/,
  codeName: nameEndingIn(`
id ids key keys type types class classes className classNames href url urls uri src path paths route
routes icon variant color colour size kind mode method event action format formats locale lang
language currency testid role target rel slug code codes token field column property prop selector
env version status state theme align position placement direction display unit style styles endpoint
scope tag channel topic mime encoding charset pattern regex regexp prefix suffix ext extension file
filename dir folder query sql command cmd level namespace module package host domain protocol 
cookie privilege privileges permission param params attribute attr element font fontFamily easing transition animation cursor
timezone tz keybinding keybindings shortcut classlist charset glob marker delimiter separator agent useragent
`),
  textCall: callOf(`
alert confirm prompt toast(?:\\.\\w+)? notify(?:\\.\\w+)? notification(?:\\.\\w+)? snackbar announce
showMessage showError showToast showNotification setError setMessage setErrorMessage setNotice
setWarning setStatusText setStatusMessage setCustomValidity say flash escapeHtml escapeHTML enqueueSnackbar fillText strokeText bindPopup bindTooltip setTooltipContent setPopupContent
`),
  namedFirst: callOf(`
addError addFlash flash setFlash addFieldError rejectValue AddModelError add_error errors\\.add form\\.add_error addFlashAttribute
addMessage label f\\.label form\\.label withErrors select f\\.select form\\.select
`),
  textAt: [[callOf("option requiredOption argument addOption addHelpText"), 1]],
  namingCall: callOf("setAttribute attr prop setProperty set put setParameter define"),
  printingCall: callOf(
    "process\\.stdout\\.write stdout\\.write console\\.log console\\.info console\\.warn console\\.error",
  ),
  codeCall: callOf(`
require import fetch querySelector querySelectorAll getElementById getElementsByClassName
getElementsByTagName closest matches createElement createElementNS addEventListener
removeEventListener dispatchEvent getAttribute setAttribute hasAttribute removeAttribute
toggleAttribute getItem setItem removeItem postMessage setHeader getHeader emit on once off subscribe dispatch trigger
startsWith endsWith includes indexOf lastIndexOf split join replace replaceAll match test
localeCompare padStart padEnd toLocaleString toLocaleDateString toLocaleTimeString get set has
delete append add remove toggle contains pushState replaceState navigate redirect useRef
useContext createContext useId useSearchParams describe it test expect toBe toEqual
toContain mock define register defineProperty URL URLSearchParams RegExp Symbol Event CustomEvent
Headers Request Response Blob File Worker WebSocket BroadcastChannel classNames clsx cx cn css format
parse resolve readFile readFileSync writeFile writeFileSync exec spawn env NumberFormat
DateTimeFormat PluralRules ListFormat Collator DisplayNames RelativeTimeFormat supports matchMedia
getPropertyValue setProperty getContext createObjectStore transaction objectStore log debug info
warn error trace time timeEnd group assert invariant addRule deleteStyleRule insertRule open reject
stop start mark measure executeCommand registerCommand command option track
`),
  errorStream: never,
  developerCall: /^(?:console|logger|log|debug|telemetry|analytics|metrics|tracker)\./,
  errorCall: /(?:^|\.)(?:(?:[A-Z]\w*)?(?:Error|Exception)|unreachable)$/,
  textMember:
    /(?:^|\.)(?:title|textContent|innerText|innerHTML|outerText|placeholder|alt|ariaLabel|ariaDescription|returnValue)$/,
  codeTemplate:
    /^(?:css|styled|keyframes|createGlobalStyle|injectGlobal|gql|graphql|sql|html|svg|glsl|wgsl|String\.raw)\b/,
};
