package dev.ironsieve.core.space;

import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.sets.IntSet;
import java.util.ArrayList;
import java.util.List;

/** Describes boxes and sets of codes of a space in words. */
final class BoxWords {
  private static final int MOST_WORDS = 8;

  private final Space space;

  BoxWords(Space space) {
    this.space = space;
  }

  /**
   * The values of a box on each axis that it narrows, with a count if there are more than {@value
   * #MOST_WORDS}.
   */
  List<String> words(Box box) {
    List<String> out = new ArrayList<>();
    for (int axis = 0; axis < space.axes.length; axis++) {
      if (box.side(axis) != space.axes[axis].all()) {
        out.add(words(axis, box.side(axis)));
      }
    }
    return out;
  }

  /** A set of codes of one axis in words, with a count where there are many. */
  String words(int axis, IntSet codes) {
    return switch (axis) {
      case Space.FROM -> joined("from ", space.from.words(codes));
      case Space.TO -> joined("to ", space.to.words(codes));
      case Space.SERVICE ->
          joined("service ", ServiceLiteral.covering(space.services.values(codes)));
      case Space.SOURCE_PORT -> joined("from port ", ports(space.sourcePorts.values(codes)));
      default -> {
        Vocabulary vocabulary = space.resolution.vocabularies().get(axis - Space.TERMS);
        SymbolAxis symbols = space.terms[axis - Space.TERMS];
        yield joined(
            vocabulary.coordinate().word() + " ",
            symbols.values(codes).limit(MOST_WORDS).mapToObj(vocabulary.values()::get).toList(),
            symbols.size(codes));
      }
    };
  }

  private static List<String> ports(IntSet ports) {
    List<String> out = new ArrayList<>();
    for (int i = 0; i < ports.intervals(); i++) {
      boolean one = ports.first(i) == ports.last(i);
      out.add(one ? ports.first(i) + "" : ports.first(i) + "-" + ports.last(i));
    }
    return out;
  }

  private static String joined(String before, List<String> values) {
    return joined(before, values.subList(0, Math.min(MOST_WORDS, values.size())), values.size());
  }

  private static String joined(String before, List<String> shown, int all) {
    int more = all - shown.size();
    return before + String.join(", ", shown) + (more > 0 ? " and " + more + " more" : "");
  }
}
