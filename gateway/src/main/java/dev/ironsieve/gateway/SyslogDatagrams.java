package dev.ironsieve.gateway;

import dev.ironsieve.formats.syslog.SyslogMessage;
import dev.ironsieve.formats.syslog.SyslogWriter;
import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetSocketAddress;
import java.net.URI;
import java.util.function.Consumer;

/**
 * Sends syslog messages over UDP, one in each datagram (RFC 5426, section 3.1). Nobody tells what
 * arrives: lost messages show as a gap in the sequence numbers. For one thread.
 */
final class SyslogDatagrams implements Consumer<SyslogMessage> {
  private final InetSocketAddress collector;
  private final DatagramSocket socket;
  private final Consumer<String> log;
  private boolean failed;

  /**
   * @param collector {@code udp://host:port}
   * @param log takes sentences for the operator
   */
  SyslogDatagrams(URI collector, Consumer<String> log) throws IOException {
    this.collector = new InetSocketAddress(collector.getHost(), collector.getPort());
    this.log = log;
    socket = new DatagramSocket();
  }

  @Override
  public void accept(SyslogMessage message) {
    byte[] text = SyslogWriter.bytes(message);
    try {
      socket.send(new DatagramPacket(text, text.length, collector));
      failed = false;
    } catch (IOException e) {
      if (!failed) {
        log.accept("The log collector cannot be reached: " + e.getMessage());
      }
      failed = true;
    }
  }
}
