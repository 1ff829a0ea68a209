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
 * The people who are signed in, by address. In memory only: after a start it is empty until network
 * gear reports again, as it does from time to time (RFC 2866, interim updates).
 */
@ApplicationScoped
public class SignIns {
  private static final int MOST = 500_000;

  private final Map<Address, SignIn> now = new LinkedHashMap<>(); // the oldest first

  /**
   * One person at an address.
   *
   * @param person the directory id
   * @param device the known facts of the device, in the notation of {@link DeviceState}; null if
   *     none
   * @param session the reporter's id of the session
   */
  public record SignIn(
      String person, Address address, DeviceState device, Instant since, String session) {}

  /** A person signs in; replaces an earlier person at the address. */
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

  /** All sign-ins of a person; O(sign-ins). */
  public synchronized List<SignIn> of(String person) {
    String key = Names.key(person);
    return now.values().stream().filter(s -> Names.key(s.person).equals(key)).toList();
  }
}
