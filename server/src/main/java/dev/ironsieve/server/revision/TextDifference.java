package dev.ironsieve.server.revision;

import com.github.difflib.DiffUtils;
import com.github.difflib.patch.AbstractDelta;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.text.RulebaseText;
import dev.ironsieve.server.revision.ReviewDocument.TextLine;
import java.util.ArrayList;
import java.util.List;

/** The lines of two rulebases as text that differ. */
final class TextDifference {
  private static final int MOST_LINES = 2_000;
  private static final String SECTION = "section ";

  private final List<String> before;
  private final List<TextLine> out = new ArrayList<>();
  private int lastSection = -1; // that was written

  private TextDifference(List<String> before) {
    this.before = before;
  }

  /** The lines that are gone and new, each below the section that it stands in. */
  static List<TextLine> of(Rulebase before, Rulebase after) {
    List<String> old = RulebaseText.lines(before);
    TextDifference text = new TextDifference(old);
    for (AbstractDelta<String> delta : DiffUtils.diff(old, RulebaseText.lines(after)).getDeltas()) {
      if (text.out.size() < MOST_LINES) {
        text.add(delta);
      }
    }
    return List.copyOf(text.out.subList(0, Math.min(MOST_LINES, text.out.size())));
  }

  private void add(AbstractDelta<String> delta) {
    int section = delta.getSource().getPosition() - 1;
    while (section >= 0 && !before.get(section).startsWith(SECTION)) {
      section--;
    }
    if (section >= 0 && section != lastSection) {
      out.add(new TextLine(" ", before.get(section)));
      lastSection = section;
    }
    delta.getSource().getLines().forEach(line -> out.add(new TextLine("-", line)));
    delta.getTarget().getLines().forEach(line -> out.add(new TextLine("+", line)));
  }
}
