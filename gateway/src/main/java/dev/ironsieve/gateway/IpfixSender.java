package dev.ironsieve.gateway;

import dev.ironsieve.formats.ipfix.FlowRecord;
import dev.ironsieve.formats.ipfix.IpfixWriter;
import dev.ironsieve.formats.syslog.DecisionRecord;
import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetSocketAddress;
import java.net.URI;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;

/**
 * Sends flows as IPFIX messages over UDP (RFC 7011, section 10.3), from a separate thread. If the
 * queue is full, it drops flows and reports that to the operator. Messages that the network loses
 * show as a gap in the sequence numbers.
 */
final class IpfixSender implements Runnable, Consumer<DecisionRecord> {
  private static final int MOST_WAITING = 20_000;
  private static final int MOST_AT_ONCE = 500;
  private static final Duration BETWEEN_TEMPLATES = Duration.ofSeconds(30);
  private static final Duration LONGEST_WAIT = Duration.ofSeconds(1);

  private final InetSocketAddress collector;
  private final IpfixWriter writer;
  private final Consumer<String> log;
  private final BlockingQueue<FlowRecord> waiting = new ArrayBlockingQueue<>(MOST_WAITING);
  private long dropped;
  private boolean failed;

  /**
   * @param collector {@code udp://host:port}
   * @param domain tells the exporters of one address apart
   * @param log takes sentences for the operator
   */
  IpfixSender(URI collector, int domain, Consumer<String> log) {
    if (!"udp".equals(collector.getScheme())
        || collector.getHost() == null
        || collector.getPort() < 0) {
      throw new IllegalArgumentException("expected udp://host:port, found " + collector);
    }
    this.collector = new InetSocketAddress(collector.getHost(), collector.getPort());
    this.log = log;
    writer = new IpfixWriter(domain);
  }

  /** Takes a record; one of a connection that is still open is no flow yet. */
  @Override
  public void accept(DecisionRecord record) {
    FlowRecord.of(record)
        .ifPresent(
            flow -> {
              if (!waiting.offer(flow)) {
                dropped++;
                if (Long.bitCount(dropped) == 1) {
                  log.accept(dropped + " flows dropped: they come faster than they are sent.");
                }
              }
            });
  }

  @Override
  public void run() {
    try (DatagramSocket socket = new DatagramSocket()) {
      Instant templates = Instant.MIN; // when they were sent last
      List<FlowRecord> flows = new ArrayList<>();
      while (true) {
        flows.clear();
        FlowRecord first = waiting.poll(LONGEST_WAIT.toMillis(), TimeUnit.MILLISECONDS);
        if (first != null) {
          flows.add(first);
          waiting.drainTo(flows, MOST_AT_ONCE - 1);
        }
        Instant now = Instant.now();
        boolean due = !templates.isAfter(now.minus(BETWEEN_TEMPLATES));
        for (byte[] message : writer.messages(flows, now, due)) {
          send(socket, message);
        }
        templates = due ? now : templates;
      }
    } catch (IOException e) {
      log.accept("No flows are sent: " + e.getMessage());
    } catch (InterruptedException stop) {
      // the program ends
    }
  }

  private void send(DatagramSocket socket, byte[] message) {
    try {
      socket.send(new DatagramPacket(message, message.length, collector));
      failed = false;
    } catch (IOException e) {
      if (!failed) {
        log.accept("The flow collector cannot be reached: " + e.getMessage());
      }
      failed = true;
    }
  }
}
