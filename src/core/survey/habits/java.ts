import { callOf, never, type Habits } from "./habits.js";
import { scriptHabits } from "./script.js";

/** Java, with the habits of its desktop and web frameworks. */
export const javaHabits: Habits = {
  ...scriptHabits,
  textCall: callOf(`
setText setTitle setToolTipText setLabel setMessage setHint setPlaceholder setHeaderText setContentText setCaption setDescription
setPromptText setPositiveButton setNegativeButton setNeutralButton makeText showMessageDialog showConfirmDialog showInputDialog
JLabel JButton JCheckBox JRadioButton JMenu JMenuItem JFrame JDialog Label Button CheckBox RadioButton MenuItem Menu Tab Text Tooltip Alert
addError addMessage addActionError addActionMessage addFieldError rejectValue reject FacesMessage addFlashAttribute createTitledBorder
addTab setBorderTitle Notification showNotification setSubject showError showInfo showWarning alert out\\.println out\\.print
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
  developerCall: /(?:^|\.)(?:log|LOG|logger|LOGGER|Log|System\.(?:out|err))\.\w+$/,
  errorCall: /(?:^|\.)\w*(?:Exception|Error)$/,
  textMember: /(?:^|\.)(?:title|message|text|label)$/,
  codeTemplate: never,
};
