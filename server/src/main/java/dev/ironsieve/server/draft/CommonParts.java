package dev.ironsieve.server.draft;

import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.rulebase.CommonRules;
import dev.ironsieve.core.rulebase.OwnParts;
import dev.ironsieve.core.rulebase.Rulebase;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The parts of a draft that are from a common rulebase and are changed only there.
 *
 * @param rulebase name of the common rulebase
 * @param revision its revision
 * @param sections names of the common rulebases that sections are from, by the ids of the sections
 * @param objects names of objects, by the word of their kind
 */
public record CommonParts(
    @Schema(required = true) String rulebase,
    @Schema(required = true) int revision,
    @Schema(required = true) Map<String, String> sections,
    @Schema(required = true) Map<String, List<String>> objects) {

  static Optional<CommonParts> of(Rulebase rulebase) {
    return rulebase.common().map(common -> of(rulebase, common));
  }

  private static CommonParts of(Rulebase rulebase, CommonRules common) {
    Map<String, String> sections = new LinkedHashMap<>();
    rulebase
        .sections()
        .forEach(
            section ->
                common.originOf(section).ifPresent(name -> sections.put(section.id(), name)));
    OwnParts own = rulebase.own();
    Map<String, List<String>> objects = new LinkedHashMap<>();
    put(objects, ObjectKind.ZONE, rulebase.zones(), own.zones(), zone -> zone.name());
    put(objects, ObjectKind.ADDRESS, rulebase.addresses(), own.addresses(), a -> a.name());
    put(objects, ObjectKind.SERVICE, rulebase.services(), own.services(), s -> s.name());
    for (ObjectKind kind : ObjectKind.OF_TERMS) {
      put(
          objects,
          kind,
          rulebase.termObjects(kind),
          own.termObjects().stream().filter(object -> object.kind() == kind).toList(),
          object -> object.name());
    }
    put(
        objects,
        ObjectKind.RATE_PLAN,
        rulebase.gatewaySettings().ratePlans(),
        own.ratePlans(),
        plan -> plan.name());
    put(
        objects,
        ObjectKind.NOTICE,
        rulebase.gatewaySettings().notices(),
        own.notices(),
        notice -> notice.name());
    return new CommonParts(common.rulebase(), common.revision(), sections, objects);
  }

  private static <T> void put(
      Map<String, List<String>> out,
      ObjectKind kind,
      List<T> whole,
      List<T> own,
      Function<T, String> nameOf) {
    Set<String> ownNames = new HashSet<>();
    own.forEach(one -> ownNames.add(Names.key(nameOf.apply(one))));
    List<String> names = new ArrayList<>();
    for (T one : whole) {
      if (!ownNames.contains(Names.key(nameOf.apply(one)))) {
        names.add(nameOf.apply(one));
      }
    }
    if (!names.isEmpty()) {
      out.put(kind.word(), names);
    }
  }
}
