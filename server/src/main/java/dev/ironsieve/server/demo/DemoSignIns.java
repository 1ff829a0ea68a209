package dev.ironsieve.server.demo;

import dev.ironsieve.core.directory.Person;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.Family;
import dev.ironsieve.formats.radius.Accounting;
import dev.ironsieve.formats.radius.Accounting.Status;
import dev.ironsieve.server.directory.Directory;
import dev.ironsieve.server.presence.RadiusListener;
import jakarta.enterprise.context.ApplicationScoped;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;

/** A morning at Brindlemere: the switches tell by RADIUS who signs in where. */
@ApplicationScoped
public class DemoSignIns {
  private static final String SECRET = "brindlemere-switches";
  private static final long OFFICES = 10L << 24 | 1 << 16 | 64 << 8; // 10.1.64.0
  private static final int TIMEOUT = 2000; // ms for an answer

  /** The states of their devices in turn; some are unknown. */
  private static final List<String> DEVICES =
      Arrays.asList(
          "managed, platform kelpos, has disk-lock, has fresh-updates",
          "managed, platform kelpos, has disk-lock",
          "unmanaged, platform driftos",
          null);

  private final Directory directory;
  private final RadiusListener listener;

  DemoSignIns(Directory directory, RadiusListener listener) {
    this.directory = directory;
    this.listener = listener;
  }

  /** Every second person signs in, each at an address of their own in the offices. */
  void start() {
    InetAddress loopback = InetAddress.getLoopbackAddress();
    int port = listener.listen(new InetSocketAddress(loopback, 0), SECRET);
    byte[] secret = SECRET.getBytes(StandardCharsets.UTF_8);
    List<Person> people = directory.latest().people();
    try (DatagramSocket socket = new DatagramSocket(0, loopback)) {
      socket.setSoTimeout(TIMEOUT);
      for (int i = 0; i < people.size(); i += 2) {
        Address address = new Address(Family.IPV4, 0, OFFICES + 10 + i);
        byte[] told =
            Accounting.request(
                i % 256,
                Status.START,
                people.get(i).id(),
                address,
                DEVICES.get(i / 2 % DEVICES.size()),
                "demo-" + i,
                secret);
        socket.send(new DatagramPacket(told, told.length, loopback, port));
        DatagramPacket answer = new DatagramPacket(new byte[64], 64);
        socket.receive(answer); // so that none is lost
      }
    } catch (IOException e) {
      throw new UncheckedIOException("the demo's sign-ins", e);
    }
  }
}
