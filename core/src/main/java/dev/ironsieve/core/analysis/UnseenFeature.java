package dev.ironsieve.core.analysis;

import dev.ironsieve.core.model.ApplicationFact;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Opening;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.sets.Transport;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Space;
import java.util.ArrayList;
import java.util.List;

/**
 * Unseen feature: a rule that leaves connections sealed, but tells apart features of an
 * application, kinds of files or paths of a host, which show only where they are opened.
 */
final class UnseenFeature {
  private static final int HTTPS = 443;

  /** Most features that a finding lists. */
  private static final int MOST_LISTED = 3;

  private UnseenFeature() {}

  /** The findings about a rule in force: at most one for paths and one for features and files. */
  static List<Finding> of(int handle, RuleIndex index) {
    Rule rule = index.rule(handle);
    if (!rule.isInForce() || rule.opening() == Opening.OPENED) {
      return List.of();
    }
    List<Finding> out = new ArrayList<>(0);
    if (namesPaths(handle, index)) {
      out.add(Finding.of(Finding.Kind.UNSEEN_FEATURE, rule.id(), "the path of a site"));
    }
    List<String> unseen = featuresAndFiles(handle, index);
    if (!unseen.isEmpty()) {
      out.add(Finding.of(Finding.Kind.UNSEEN_FEATURE, rule.id(), sentence(unseen)));
    }
    return out;
  }

  /** Features that the rule tells from others of their application, and "the kind of file". */
  private static List<String> featuresAndFiles(int handle, RuleIndex index) {
    Rule rule = index.rule(handle);
    int axis = index.space().axis(Coordinate.APPLICATION) - Space.TERMS;
    boolean namesFiles = !rule.term(Coordinate.FILE_KIND).isAny();
    boolean namesApplications = !rule.term(Coordinate.APPLICATION).isAny();
    if (axis < 0 || !namesFiles && !namesApplications) {
      return List.of();
    }
    IntSet wanted = index.match(handle).terms().get(axis);
    List<String> values = index.resolution().vocabularies().get(axis).values();
    List<String> features = new ArrayList<>();
    boolean anySealed = false;
    for (ApplicationFact fact : index.resolution().applications()) {
      IntSet hidden = fact.openedOnly();
      boolean sealed = wanted.intersects(hidden);
      anySealed |= sealed;
      if (sealed && !wanted.containsAll(hidden)) {
        wanted.intersect(hidden).forEach(value -> features.add(values.get(value)));
      }
    }
    List<String> out = new ArrayList<>(features.stream().limit(MOST_LISTED).toList());
    if (features.size() > MOST_LISTED) {
      out.add(features.size() - MOST_LISTED + " more");
    }
    if (namesFiles && anySealed) {
      out.add("the kind of file");
    }
    return out;
  }

  private static String sentence(List<String> parts) {
    String last = parts.getLast();
    return parts.size() == 1
        ? last
        : String.join(", ", parts.subList(0, parts.size() - 1)) + " and " + last;
  }

  /** Whether the rule matches some paths of a host but not others, in sealed connections. */
  private static boolean namesPaths(int handle, RuleIndex index) {
    int axis = index.space().axis(Coordinate.SITE) - Space.TERMS;
    if (axis < 0 || index.rule(handle).term(Coordinate.SITE).isAny()) {
      return false;
    }
    IntSet wanted = index.match(handle).terms().get(axis);
    return mayBeEncrypted(handle, index)
        && index.resolution().sitesAlike().stream()
            .anyMatch(alike -> wanted.intersects(alike) && !wanted.containsAll(alike));
  }

  /** Whether it holds on the port of HTTPS, over TCP or QUIC. */
  private static boolean mayBeEncrypted(int handle, RuleIndex index) {
    Space space = index.space();
    for (int protocol : new int[] {Transport.TCP, Transport.UDP}) {
      int code = space.serviceCode(Transport.position(protocol, HTTPS));
      for (Box box : index.region(handle)) {
        if (box.side(Space.SERVICE).contains(code)) {
          return true;
        }
      }
    }
    return false;
  }
}
