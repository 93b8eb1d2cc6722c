import com.ibm.icu.text.MessagePattern;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.nio.file.Files;
import java.nio.file.Path;

/** Parses the messages of a file, one in a line, again and again, and prints the nanoseconds that one takes once warm. */
public class PatternBench {
  public static void main(String[] arguments) throws Exception {
    List<String> messages = Files.readAllLines(Path.of(arguments[0]), StandardCharsets.UTF_8);
    long best = Long.MAX_VALUE;
    int parts = 0;
    for (int round = 0; round < 12; round++) {
      long start = System.nanoTime();
      for (String message : messages) parts += new MessagePattern(message).countParts();
      best = Math.min(best, System.nanoTime() - start);
    }
    System.out.println(best / messages.size() + " " + (parts > 0));
  }
}
