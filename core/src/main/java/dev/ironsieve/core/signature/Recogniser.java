package dev.ironsieve.core.signature;

import dev.ironsieve.core.model.ServiceLiteral;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.IntStream;

/**
 * Matches a connection against many signatures at once. Of those that hold, the one whose
 * conditions weigh most is meant: an exact host name more than one below a name, that more than a
 * path, a field, an offered protocol or bytes, those more than a port; of equals, the first by the
 * application's name, then the feature's.
 *
 * <p>Each signature lies under its most telling condition: a host name, a first byte, or a service;
 * so a connection is held against few of them. May be asked by several threads at once.
 */
public final class Recogniser {
  /** A signature and the application that it tells. */
  public record Named(String application, Signature signature) {
    /** As rules name it. */
    public String use() {
      return signature.feature() == null ? application : application + ": " + signature.feature();
    }
  }

  private static final int MOST_PORTS = 64; // of a range, each with a separate entry

  private final Map<String, List<Named>> byHost = new HashMap<>();
  private final List<List<Named>> byClientByte = buckets();
  private final List<List<Named>> byServerByte = buckets();
  private final Map<Integer, List<Named>> byService = new HashMap<>(); // protocol << 16 | port
  private final List<Named> rest = new ArrayList<>();

  private static List<List<Named>> buckets() {
    return IntStream.range(0, 256).<List<Named>>mapToObj(i -> new ArrayList<>()).toList();
  }

  public Recogniser(List<Named> signatures) {
    signatures.forEach(this::add);
  }

  private void add(Named named) {
    List<Condition> conditions = named.signature.conditions();
    for (Condition condition : conditions) {
      if (condition instanceof Condition.Names names) {
        byHost.computeIfAbsent(names.host().name(), k -> new ArrayList<>()).add(named);
        return;
      }
    }
    for (Condition condition : conditions) {
      if (condition instanceof Condition.Starts starts && starts.bytes().first() >= 0) {
        boolean client = starts.side() == Condition.Side.CLIENT;
        (client ? byClientByte : byServerByte).get(starts.bytes().first()).add(named);
        return;
      }
    }
    for (Condition condition : conditions) {
      if (condition instanceof Condition.OnService on
          && on.services().stream().allMatch(s -> s.lastDetail() - s.firstDetail() < MOST_PORTS)) {
        for (ServiceLiteral service : on.services()) {
          for (int port = service.firstDetail(); port <= service.lastDetail(); port++) {
            byService
                .computeIfAbsent(service.protocol() << 16 | port, k -> new ArrayList<>())
                .add(named);
          }
        }
        return;
      }
    }
    rest.add(named);
  }

  /** The application of a connection; empty if no signature holds. */
  public Optional<Recognised> recognise(Sight sight) {
    List<Named> holding = new ArrayList<>(4);
    for (Condition.Where where : Condition.Where.values()) {
      addByHost(where.of(sight), sight, holding);
    }
    addByByte(sight.client(), byClientByte, sight, holding);
    addByByte(sight.server(), byServerByte, sight, holding);
    addThose(byService.get(sight.protocol() << 16 | sight.port()), sight, holding);
    addThose(rest, sight, holding);
    if (holding.isEmpty()) {
      return Optional.empty();
    }
    holding.sort(
        Comparator.comparing((Named named) -> -named.signature.weight()).thenComparing(Named::use));
    Named meant = holding.getFirst();
    return Optional.of(
        new Recognised(
            meant,
            meant.signature.conditions().stream()
                .map(condition -> condition.evidence(sight))
                .toList(),
            List.copyOf(holding.subList(1, holding.size()))));
  }

  private void addByHost(String host, Sight sight, List<Named> holding) {
    for (String name = host; name != null; ) {
      addThose(byHost.get(name), sight, holding);
      int dot = name.indexOf('.');
      name = dot < 0 ? null : name.substring(dot + 1);
    }
  }

  private static void addByByte(
      byte[] bytes, List<List<Named>> buckets, Sight sight, List<Named> holding) {
    if (bytes.length > 0) {
      addThose(buckets.get(bytes[0] & 0xff), sight, holding);
    }
  }

  private static void addThose(List<Named> candidates, Sight sight, List<Named> holding) {
    if (candidates == null) {
      return;
    }
    for (Named named : candidates) {
      boolean holds =
          named.signature.conditions().stream()
              .map(condition -> condition.evidence(sight))
              .allMatch(Objects::nonNull);
      if (holds && !holding.contains(named)) {
        holding.add(named);
      }
    }
  }
}
