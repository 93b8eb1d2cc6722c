package x.y; import java.util.*;
public class Desk extends Frame { private static final String T = "Check-in desk"; @Named("key") int n;
  Desk() { setTitle("Boats: " + n); JOptionPane.showMessageDialog(this, String.format("There are %d boats", n)); if (s.equals("late")) throw new IllegalStateException("bad state"); char c = '"';
    label.setText(n == 1 ? "One boat" : n + " boats"); String b = """
      Text "block"
      """; } }
