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
    return name(axis) + " " + values(axis, codes);
  }

  /** The word for an axis. */
  String name(int axis) {
    return switch (axis) {
      case Space.FROM -> "from";
      case Space.TO -> "to";
      case Space.SERVICE -> "service";
      case Space.SOURCE_PORT -> "from port";
      default -> space.resolution.vocabularies().get(axis - Space.TERMS).coordinate().word();
    };
  }

  /** The same without the word for the axis. */
  String values(int axis, IntSet codes) {
    return values(axis, codes, true);
  }

  /**
   * The same as a part of other codes.
   *
   * @param within where all of these are in one zone, that is not named
   */
  String values(int axis, IntSet codes, IntSet within) {
    boolean end = axis == Space.FROM || axis == Space.TO;
    EndpointAxis line = axis == Space.FROM ? space.from : space.to;
    return values(axis, codes, !end || line.zonesOf(within).size() > 1);
  }

  private String values(int axis, IntSet codes, boolean withZones) {
    return switch (axis) {
      case Space.FROM -> joined(space.from.words(codes, withZones));
      case Space.TO -> joined(space.to.words(codes, withZones));
      case Space.SERVICE -> joined(ServiceLiteral.covering(space.services.values(codes)));
      case Space.SOURCE_PORT -> joined(ports(space.sourcePorts.values(codes)));
      default -> {
        Vocabulary vocabulary = space.resolution.vocabularies().get(axis - Space.TERMS);
        SymbolAxis symbols = space.terms[axis - Space.TERMS];
        yield joined(
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

  private static String joined(List<String> values) {
    return joined(values.subList(0, Math.min(MOST_WORDS, values.size())), values.size());
  }

  private static String joined(List<String> shown, int all) {
    int more = all - shown.size();
    return String.join(", ", shown) + (more > 0 ? " and " + more + " more" : "");
  }
}
