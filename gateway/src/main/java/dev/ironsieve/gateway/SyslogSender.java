package dev.ironsieve.gateway;

import dev.ironsieve.formats.syslog.SyslogMessage;
import dev.ironsieve.formats.syslog.SyslogWriter;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.URI;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.function.Consumer;
import javax.net.SocketFactory;
import javax.net.ssl.SSLParameters;
import javax.net.ssl.SSLSocket;

/**
 * Sends syslog messages over TCP or TLS with octet counting (RFC 6587, section 3.4.1; RFC 5425,
 * section 4.3), from a separate thread. While the collector is away, messages wait in a bounded
 * queue; what does not fit is dropped, and shows as a gap in the sequence numbers. TCP tells nobody
 * what arrived, so after a new connection the last messages are sent again; the collector tells
 * them by their numbers.
 */
final class SyslogSender implements Runnable, Consumer<SyslogMessage> {
  private static final int MOST_WAITING = 20_000;
  private static final int RESENT = 2_000;
  private static final int CONNECT_PATIENCE = 5_000; // milliseconds
  private static final long FIRST_PAUSE = 250; // milliseconds
  private static final long LONGEST_PAUSE = 10_000;
  private static final int BUFFER = 1 << 16;

  private final URI collector;
  private final SocketFactory sockets;
  private final Consumer<String> log;
  private final BlockingQueue<byte[]> waiting = new ArrayBlockingQueue<>(MOST_WAITING);
  private final ArrayDeque<byte[]> sent = new ArrayDeque<>(); // the last ones
  private long dropped;

  /**
   * @param collector {@code tcp://host:port} or {@code tls://host:port}
   * @param sockets makes the connections
   * @param log takes sentences for the operator
   */
  SyslogSender(URI collector, SocketFactory sockets, Consumer<String> log) {
    this.collector = Collectors.checked(collector);
    this.sockets = sockets;
    this.log = log;
  }

  /** Takes a message to send; drops it if too many wait. */
  @Override
  public void accept(SyslogMessage message) {
    if (!waiting.offer(SyslogWriter.frame(message))) {
      dropped++;
      if (Long.bitCount(dropped) == 1) {
        log.accept(dropped + " log records dropped: the collector takes too few.");
      }
    }
  }

  @Override
  public void run() {
    long pause = FIRST_PAUSE;
    while (!Thread.currentThread().isInterrupted()) {
      try (Socket socket = connected()) {
        pause = FIRST_PAUSE;
        send(new BufferedOutputStream(socket.getOutputStream(), BUFFER));
      } catch (IOException e) {
        log.accept(
            "The log collector is away (%s); trying again in %d ms."
                .formatted(e.getMessage(), pause));
        try {
          Thread.sleep(pause);
        } catch (InterruptedException stop) {
          return;
        }
        pause = Math.min(2 * pause, LONGEST_PAUSE);
      } catch (InterruptedException stop) {
        return;
      }
    }
  }

  /** A connection; one of TLS only to a collector with a certificate of its host name. */
  private Socket connected() throws IOException {
    Socket socket = sockets.createSocket();
    try {
      socket.connect(
          new InetSocketAddress(collector.getHost(), collector.getPort()), CONNECT_PATIENCE);
      if (socket instanceof SSLSocket tls) {
        SSLParameters parameters = tls.getSSLParameters();
        parameters.setEndpointIdentificationAlgorithm("HTTPS"); // RFC 5425, section 5.2
        tls.setSSLParameters(parameters);
        tls.setSoTimeout(CONNECT_PATIENCE);
        tls.startHandshake();
      }
      return socket;
    } catch (IOException e) {
      socket.close();
      throw e;
    }
  }

  private void send(OutputStream out) throws IOException, InterruptedException {
    for (byte[] frame : sent) {
      out.write(frame);
    }
    out.flush();
    List<byte[]> batch = new ArrayList<>();
    while (true) {
      batch.clear();
      batch.add(waiting.take());
      waiting.drainTo(batch, RESENT - 1);
      // Noted before they are written: whatever fails on the way is sent again.
      for (byte[] frame : batch) {
        sent.addLast(frame);
        if (sent.size() > RESENT) {
          sent.removeFirst();
        }
      }
      for (byte[] frame : batch) {
        out.write(frame);
      }
      out.flush();
    }
  }
}
