package dev.ironsieve.formats.capture;

import dev.ironsieve.formats.InvalidDocument;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.ArrayList;
import java.util.List;

/**
 * Reads packets out of a capture, one after the other, in the memory of one: pcap
 * (draft-ietf-opsawg-pcap) and pcapng (draft-ietf-opsawg-pcapng), of either byte order.
 */
final class CaptureReader {
  /** Longest packet, and longest block, in bytes. */
  static final int MAX_PACKET = 1 << 20;

  private static final int PCAP_MICROS = 0xa1b2c3d4;
  private static final int PCAP_NANOS = 0xa1b23c4d;
  private static final int NG_SECTION = 0x0a0d0d0a;
  private static final int NG_ORDER = 0x1a2b3c4d;
  private static final int NG_INTERFACE = 1;
  private static final int NG_SIMPLE = 3;
  private static final int NG_PACKET = 6;

  /** Receives packets; the array is used again for the next. */
  interface Taker {
    /**
     * @param link number of the type of link (draft-ietf-opsawg-pcaplinktype)
     * @param length how much of the array is the packet
     */
    void packet(int link, byte[] from, int start, int length);
  }

  /** The end of the input came where more was promised. */
  private static final class CutOff extends Exception {
    private static final long serialVersionUID = 1;

    CutOff(String what, long missing, long at) {
      super(what + " is cut off at byte " + at + ": " + missing + " more were promised");
    }
  }

  private final String file;
  private final InputStream in;
  private final Taker taker;
  private byte[] buffer = new byte[1 << 16];
  private long at; // bytes read so far
  private long packets;

  private CaptureReader(String file, InputStream in, Taker taker) {
    this.file = file;
    this.in = new BufferedInputStream(in, 1 << 18);
    this.taker = taker;
  }

  /**
   * Reads all packets.
   *
   * @param file what to call the input in complaints
   * @return the fault at the end of the file, or null if there is none
   * @throws InvalidDocument if it is no capture, or one that goes wrong in the middle
   */
  static String read(String file, InputStream in, Taker taker) throws IOException {
    CaptureReader reader = new CaptureReader(file, in, taker);
    try {
      reader.all();
      return null;
    } catch (CutOff e) {
      return e.getMessage();
    }
  }

  private void all() throws IOException, CutOff {
    if (!fill(4, "the beginning", true)) {
      throw invalid("a capture", "nothing");
    }
    int magic = header(ByteOrder.BIG_ENDIAN).getInt(0);
    int swapped = Integer.reverseBytes(magic);
    if (magic == PCAP_MICROS || magic == PCAP_NANOS) {
      pcap(ByteOrder.BIG_ENDIAN);
    } else if (swapped == PCAP_MICROS || swapped == PCAP_NANOS) {
      pcap(ByteOrder.LITTLE_ENDIAN);
    } else if (magic == NG_SECTION) {
      pcapng();
    } else {
      throw invalid("pcap or pcapng", "a file that begins with %08x".formatted(magic));
    }
  }

  private InvalidDocument invalid(String expected, String found) {
    return new InvalidDocument(file + ": byte " + at, expected, found);
  }

  /** Fills the start of the buffer; false if the input ends before the first of these bytes. */
  private boolean fill(int count, String what, boolean mayEnd) throws IOException, CutOff {
    if (count > buffer.length) {
      buffer = new byte[Math.max(count, 2 * buffer.length)];
    }
    int read = in.readNBytes(buffer, 0, count);
    at += read;
    if (read == 0 && mayEnd && count > 0) {
      return false;
    }
    if (read < count) {
      throw new CutOff(what, count - read, at);
    }
    return true;
  }

  private ByteBuffer header(ByteOrder order) {
    return ByteBuffer.wrap(buffer).order(order);
  }

  private String next() {
    return "packet " + (packets + 1);
  }

  private int size(int size, String what) {
    if (size < 0 || size > MAX_PACKET) {
      throw invalid(what + " of 0 to " + MAX_PACKET + " bytes", Integer.toUnsignedString(size));
    }
    return size;
  }

  private void pcap(ByteOrder order) throws IOException, CutOff {
    fill(20, "the head of the file", false);
    int link = header(order).getInt(16) & 0xffff;
    while (fill(16, next(), true)) {
      int size = size(header(order).getInt(8), next());
      fill(size, next(), false);
      packets++;
      taker.packet(link, buffer, 0, size);
    }
  }

  private void pcapng() throws IOException, CutOff {
    ByteOrder order = section();
    List<Integer> links = new ArrayList<>();
    while (fill(8, "a block behind packet " + packets, true)) {
      if (header(order).getInt(0) == NG_SECTION) {
        at -= 4; // the length was read with the type; the section reads it again
        byte[] length = {buffer[4], buffer[5], buffer[6], buffer[7]};
        order = section(length);
        links.clear();
        continue;
      }
      int type = header(order).getInt(0);
      int size = size(header(order).getInt(4), "a block");
      if (size < 12 || size % 4 != 0) {
        throw invalid("a block of at least 12 bytes, a multiple of 4", size + "");
      }
      fill(size - 8, "a block behind packet " + packets, false);
      block(type, header(order), size - 12, links);
    }
  }

  private ByteOrder section() throws IOException, CutOff {
    fill(4, "the head of the file", false);
    return section(new byte[] {buffer[0], buffer[1], buffer[2], buffer[3]});
  }

  /** Reads the rest of a section's head, whose byte order only its third word tells. */
  private ByteOrder section(byte[] length) throws IOException, CutOff {
    fill(4, "the head of a section", false);
    int magic = header(ByteOrder.BIG_ENDIAN).getInt(0);
    ByteOrder order = magic == NG_ORDER ? ByteOrder.BIG_ENDIAN : ByteOrder.LITTLE_ENDIAN;
    if (magic != NG_ORDER && Integer.reverseBytes(magic) != NG_ORDER) {
      throw invalid("a section's byte order, 1a2b3c4d", "%08x".formatted(magic));
    }
    int size = size(ByteBuffer.wrap(length).order(order).getInt(), "a section's head");
    if (size < 28) {
      throw invalid("a section's head of at least 28 bytes", size + "");
    }
    fill(size - 12, "the head of a section", false);
    return order;
  }

  private void block(int type, ByteBuffer body, int size, List<Integer> links) {
    switch (type) {
      case NG_INTERFACE -> {
        if (size < 8) {
          throw invalid("an interface of at least 8 bytes", size + "");
        }
        links.add(body.getShort(0) & 0xffff);
      }
      case NG_PACKET -> {
        int caught = size < 20 ? -1 : body.getInt(12);
        if (caught < 0 || caught > size - 20) {
          throw invalid(next() + " of at most " + (size - 20) + " bytes", caught + "");
        }
        packet(link(links, body.getInt(0)), 20, caught);
      }
      case NG_SIMPLE -> {
        if (size < 4) {
          throw invalid(next() + " with its length", size + " bytes");
        }
        int original = body.getInt(0);
        packet(link(links, 0), 4, original < 0 ? size - 4 : Math.min(original, size - 4));
      }
      default -> {} // names, statistics and the like
    }
  }

  private int link(List<Integer> links, int number) {
    if (number < 0 || number >= links.size()) {
      throw invalid(next() + " on one of " + links.size() + " interfaces", number + "");
    }
    return links.get(number);
  }

  private void packet(int link, int start, int length) {
    packets++;
    taker.packet(link, buffer, start, length);
  }
}
