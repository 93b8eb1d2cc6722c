import com.ibm.icu.text.MessageFormat;
import com.ibm.icu.util.ULocale;
import java.io.BufferedReader;
import java.io.InputStreamReader;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Map;

/**
 * Reads lines of a message (code units in hexadecimal), a locale and a whole number, and answers with what ICU4J makes of
 * the message with n = the number, name = "Mara" and kind = "sea", or that it refuses it.
 */
public class IcuOracle {
  public static void main(String[] arguments) throws Exception {
    BufferedReader lines = new BufferedReader(new InputStreamReader(System.in, StandardCharsets.US_ASCII));
    PrintStream out = new PrintStream(System.out, false, StandardCharsets.US_ASCII);
    for (String line = lines.readLine(); line != null; line = lines.readLine()) {
      String[] parts = line.split("\t", -1);
      String answer;
      try {
        Map<String, Object> values = new HashMap<>();
        values.put("n", Integer.parseInt(parts[2]));
        values.put("name", "Mara");
        values.put("kind", "sea");
        answer = "=" + encode(new MessageFormat(decode(parts[0]), new ULocale(parts[1])).format(values));
      } catch (IllegalArgumentException | IndexOutOfBoundsException refused) {
        answer = "refused";
      }
      out.println(answer);
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
