package dev.ironsieve.gateway;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.formats.syslog.SyslogFrames;
import dev.ironsieve.formats.syslog.SyslogMessage;
import dev.ironsieve.formats.syslog.SyslogReader;
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.TreeSet;
import javax.net.SocketFactory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

/** A sender whose collector hangs up again and again. */
@Timeout(120)
class SyslogSenderTest {
  private static final int MESSAGES = 1_000;

  private static SyslogMessage message(int number) {
    return new SyslogMessage(20, 6, null, "h", "a", null, number + "", List.of(), "");
  }

  /** Reads numbers from a connection, at least {@code most} unless it ends before. */
  private static List<Integer> read(Socket socket, int most) throws IOException {
    List<Integer> out = new ArrayList<>();
    SyslogFrames frames =
        new SyslogFrames(
            text -> out.add(Integer.parseInt(SyslogReader.read(text).id())),
            fault -> {
              throw new AssertionError(fault);
            });
    byte[] bytes = new byte[512];
    while (out.size() < most) {
      int count = socket.getInputStream().read(bytes);
      if (count < 0) {
        break;
      }
      frames.add(Arrays.copyOf(bytes, count));
    }
    return out;
  }

  @Test
  void everyMessageArrivesInOrderThoughTheCollectorHangsUp() throws Exception {
    try (ServerSocket server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
      SyslogSender sender =
          new SyslogSender(
              URI.create("tcp://127.0.0.1:" + server.getLocalPort()),
              SocketFactory.getDefault(),
              log -> {});
      Thread thread = Thread.ofPlatform().daemon().start(sender);
      TreeSet<Integer> arrived = new TreeSet<>();
      int sent = 0;
      for (int round = 1; round <= 5; round++) {
        try (Socket socket = server.accept()) {
          for (int i = 0; i < MESSAGES / 5; i++) {
            sender.accept(message(sent++));
          }
          List<Integer> some = read(socket, round < 5 ? 100 : sent);
          assertThat(some).as("round %d", round).isSorted();
          arrived.addAll(some);
        }
        sender.accept(message(sent++)); // so that it notices
      }
      assertThat(arrived).contains(0, 100, MESSAGES / 5, MESSAGES - 1);
      assertThat(arrived.headSet(MESSAGES)).hasSize(MESSAGES);
      thread.interrupt();
    }
  }

  @Test
  void onlyAddressesOfTcpAreTaken() {
    for (String wrong : List.of("http://log.example:514", "tcp://log.example", "log.example:514")) {
      assertThatThrownBy(() -> Collectors.checked(URI.create(wrong)))
          .hasMessageContaining("expected tcp://host:port");
    }
  }
}
