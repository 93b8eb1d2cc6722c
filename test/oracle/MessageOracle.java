import java.io.BufferedReader;
import java.io.InputStreamReader;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.text.MessageFormat;
import java.util.Locale;

/**
 * Reads one pattern a line (as code units in hexadecimal) and answers with what java.text.MessageFormat shows for the values
 * A0, A1, A2 and A3, in the same writing; "refused" for a pattern that it does not take, "untold" for values that a type does not.
 */
public class MessageOracle {
  public static void main(String[] arguments) throws Exception {
    BufferedReader lines = new BufferedReader(new InputStreamReader(System.in, StandardCharsets.US_ASCII));
    PrintStream out = new PrintStream(System.out, false, StandardCharsets.US_ASCII);
    for (String line = lines.readLine(); line != null; line = lines.readLine()) {
      MessageFormat format;
      try {
        format = new MessageFormat(decode(line), Locale.ENGLISH);
      } catch (IllegalArgumentException refused) {
        out.println("refused");
        continue;
      }
      try {
        out.println("=" + encode(format.format(new Object[] {"A0", "A1", "A2", "A3"})));
      } catch (IllegalArgumentException untold) {
        out.println("untold");
      }
    }
    out.flush();
  }

  static String decode(String hex) {
    StringBuilder text = new StringBuilder();
    for (int at = 0; at + 4 <= hex.length(); at += 4) text.append((char) Integer.parseInt(hex.substring(at, at + 4), 16));
    return text.toString();
  }

  static String encode(String text) {
    StringBuilder hex = new StringBuilder();
    for (char unit : text.toCharArray()) hex.append(String.format("%04x", (int) unit));
    return hex.toString();
  }
}
