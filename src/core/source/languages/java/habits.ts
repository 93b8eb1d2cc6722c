import { callOf, never, type Habits } from "../habits.js";
import { scriptHabits } from "../script/habits.js";

/** Java, with the habits of its desktop and web frameworks. */
export const javaHabits: Habits = {
  ...scriptHabits,
  textCall: callOf(`
setText setTitle setToolTipText setLabel setMessage setHint setPlaceholder setHeaderText setContentText setCaption setDescription
setPromptText setPositiveButton setNegativeButton setNeutralButton makeText showMessageDialog showConfirmDialog showInputDialog
JLabel JButton JCheckBox JRadioButton JMenu JMenuItem JFrame JDialog Label Button CheckBox RadioButton MenuItem Menu Tab Text Tooltip Alert
addError addMessage addActionError addActionMessage addFieldError rejectValue reject FacesMessage addFlashAttribute createTitledBorder
addTab setBorderTitle addItem setHeaderValue setError setAction setContentDescription setContentTitle setSummary TableColumn Snackbar\\.make setPositiveText addColumn\\.setHeader Notification\\.show H1 H2 H3 H4 Span forStatusAndDetail setTitle ResponseStatusException Notification showNotification setSubject showError showInfo showWarning alert out\\.println out\\.print sendError
`),
  codeCall: callOf(`
getParameter getAttribute setAttribute getProperty setProperty getenv getString getResource getResourceAsStream forName loadClass
getBean equals equalsIgnoreCase startsWith endsWith contains indexOf lastIndexOf replace replaceAll split matches compile get put containsKey
remove getInt getLong getDouble getHeader setHeader addHeader sendRedirect getRequestDispatcher forward prepareStatement executeQuery
executeUpdate createQuery createNativeQuery createNamedQuery setParameter findViewById getIdentifier ofPattern SimpleDateFormat DateTimeFormatter
DecimalFormat getLogger getInstance valueOf File Path Paths.get Path.of URI URL create of getMethod getDeclaredField getField setContentType
setCharacterEncoding addServlet addFilter setActionCommand getActionCommand firePropertyChange addPropertyChangeListener getBundle
assertEquals assertTrue assertThat Locale ModelAndView addObject addAttribute setViewName Qualifier getElementById
getElementsByTagName appendChild setIconImage ImageIcon getContext lookup setId addStyleName setStyle setName
`),
  textAt: [
    [callOf("FileNameExtensionFilter ExtensionFilter"), 0],
    [callOf("addOption"), 2, 3],
  ],
  namingCall: callOf("addAttribute setAttribute put putExtra putString setProperty addObject setParameter"),
  printingCall: callOf(
    "System\\.out\\.println System\\.out\\.print System\\.out\\.printf System\\.out\\.format append getWriter\\.println getWriter\\.print getWriter\\.write",
  ),
  errorStream: /^System\.err\.\w+$/,
  developerCall: /(?:^|\.)(?:log|LOG|logger|LOGGER|Log|System\.err)\.\w+$/,
  errorCall: /(?:^|\.)\w*(?:Exception|Error)$/,
  textMember: /(?:^|\.)(?:title|message|text|label)$/,
  codeTemplate: never,
};
