package dev.ironsieve.server.presence;

import dev.ironsieve.core.model.DeviceState;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.sets.Address;
import jakarta.enterprise.context.ApplicationScoped;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Who is signed in at which address now. It is in memory only: after a start it is unknown until it
 * is told again, as network gear does from time to time (RFC 2866, interim updates).
 */
@ApplicationScoped
public class SignIns {
  private static final int MOST = 500_000;

  private final Map<Address, SignIn> now = new LinkedHashMap<>(); // the oldest first

  /**
   * Somebody at an address.
   *
   * @param person what the directory knows them by
   * @param device what is known of their device, as {@link DeviceState} says it; null if nothing is
   * @param session what the teller knows it by
   */
  public record SignIn(
      String person, Address address, DeviceState device, Instant since, String session) {}

  /** Somebody is signed in; whoever was before at this address is no longer. */
  public synchronized void in(
      String person, Address address, DeviceState device, Instant at, String session) {
    SignIn before = now.get(address);
    boolean same =
        before != null
            && Names.key(before.person).equals(Names.key(person))
            && before.session.equals(session);
    now.put(address, new SignIn(person, address, device, same ? before.since : at, session));
    if (now.size() > MOST) {
      now.remove(now.keySet().iterator().next());
    }
  }

  /** Nobody is signed in there any more, unless it is another session by now. */
  public synchronized void out(Address address, String session) {
    SignIn there = now.get(address);
    if (there != null && there.session.equals(session)) {
      now.remove(address);
    }
  }

  public synchronized Optional<SignIn> at(Address address) {
    return Optional.ofNullable(now.get(address));
  }

  /** Everywhere that somebody is signed in; O(sign-ins). */
  public synchronized List<SignIn> of(String person) {
    String key = Names.key(person);
    return now.values().stream().filter(s -> Names.key(s.person).equals(key)).toList();
  }
}
