package lanternfish.harbor;

import java.text.MessageFormat;
import java.util.ResourceBundle;

/** What the harbor office says on its screens. */
final class Office {
  private final ResourceBundle texts = ResourceBundle.getBundle("texts.office");

  String greeting(String name) {
    return MessageFormat.format(texts.getString("office.greeting"), name);
  }

  String berthsFree(int berths) {
    return MessageFormat.format(texts.getString("office.berths"), berths);
  }

  String moored(String boat, int berth) {
    return MessageFormat.format(texts.getString("office.moored"), boat, berth);
  }

  String closed() {
    return texts.getString("office.closed");
  }
}
