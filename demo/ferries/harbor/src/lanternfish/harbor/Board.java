package lanternfish.harbor;

import java.util.ResourceBundle;
import javax.swing.JButton;
import javax.swing.JLabel;
import javax.swing.JPanel;

/** The board beside the pier. */
final class Board extends JPanel {
  private static final long serialVersionUID = 1L;

  Board(ResourceBundle texts, int berth) {
    JLabel heading = new JLabel(texts.getString("board.heading"));
    heading.setToolTipText("Boats at the pier today");
    add(heading);
    add(new JLabel("No boat is expected"));
    add(new JLabel("Berth " + berth + " is free until noon"));
    add(new JButton("Print the list"));
  }
}
