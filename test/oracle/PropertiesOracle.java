import java.io.BufferedReader;
import java.io.InputStreamReader;
import java.io.PrintStream;
import java.io.StringReader;
import java.nio.charset.StandardCharsets;
import java.util.Properties;
import java.util.TreeMap;

/** Reads one text a line (as code units in hexadecimal) and answers with what java.util.Properties makes of it, in the same writing. */
public class PropertiesOracle {
  public static void main(String[] arguments) throws Exception {
    BufferedReader lines = new BufferedReader(new InputStreamReader(System.in, StandardCharsets.US_ASCII));
    PrintStream out = new PrintStream(System.out, false, StandardCharsets.US_ASCII);
    for (String line = lines.readLine(); line != null; line = lines.readLine()) {
      StringBuilder answer = new StringBuilder();
      try {
        Properties properties = new Properties();
        properties.load(new StringReader(decode(line)));
        TreeMap<String, String> sorted = new TreeMap<>();
        for (String name : properties.stringPropertyNames()) sorted.put(name, properties.getProperty(name));
        sorted.forEach((name, value) -> answer.append(encode(name)).append('=').append(encode(value)).append(';'));
      } catch (IllegalArgumentException refused) {
        answer.append("refused");
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
