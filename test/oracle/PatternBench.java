import com.ibm.icu.text.MessagePattern;
import java.io.BufferedReader;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/** Parses the messages of a file, one in a line: those from one number up to another, as a line of input asks, and prints the nanoseconds that took. */
public class PatternBench {
  public static void main(String[] arguments) throws Exception {
    List<String> messages = Files.readAllLines(Path.of(arguments[0]), StandardCharsets.UTF_8);
    BufferedReader requests = new BufferedReader(new InputStreamReader(System.in));
    for (String request; (request = requests.readLine()) != null; ) {
      String[] range = request.split(" ");
      List<String> piece = messages.subList(Integer.parseInt(range[0]), Integer.parseInt(range[1]));
      int parts = 0;
      long start = System.nanoTime();
      for (String message : piece) parts += new MessagePattern(message).countParts();
      System.out.println((System.nanoTime() - start) + " " + parts);
    }
  }
}
