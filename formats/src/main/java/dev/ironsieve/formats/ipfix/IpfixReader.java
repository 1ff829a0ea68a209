package dev.ironsieve.formats.ipfix;

import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.formats.ipfix.Template.Field;
import java.nio.ByteBuffer;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Reads the IPFIX messages of one transport session (RFC 7011, section 3), and keeps its templates.
 * For one thread.
 *
 * <p>It remembers at most {@value #MOST_TEMPLATES} templates of at most {@value #MOST_DOMAINS}
 * domains, and forgets the oldest.
 */
public final class IpfixReader {
  /** Templates of one domain. */
  static final int MOST_TEMPLATES = 200;

  static final int MOST_DOMAINS = 50;
  private static final int MOST_FIELDS = 300;
  private static final int VERSION = 10;
  private static final int HEADER = 16;
  private static final int SET_HEADER = 4;
  private static final int TEMPLATE_SET = 2;
  private static final int OPTIONS_TEMPLATE_SET = 3;
  private static final int FIRST_DATA_SET = 256;
  private static final int FOREIGN = 0x8000;

  /** A larger gap in the sequence numbers is taken for a restart of the exporter. */
  private static final int MOST_GAP = 10_000_000;

  /** What is known of one observation domain. */
  private static final class Domain {
    private final Map<Integer, Template> templates = new Latest<>(MOST_TEMPLATES);
    private final Map<Integer, Template> options = new Latest<>(MOST_TEMPLATES);
    private int expected; // sequence number of the next message
    private boolean seen;
  }

  private static final class Latest<V> extends LinkedHashMap<Integer, V> {
    private static final long serialVersionUID = 1;
    private final int most;

    Latest(int most) {
      this.most = most;
    }

    @Override
    protected boolean removeEldestEntry(Map.Entry<Integer, V> eldest) {
      return size() > most;
    }
  }

  private final Map<Integer, Domain> domains = new Latest<>(MOST_DOMAINS);

  /** The parts of one message that were read. */
  private static final class Read {
    private final List<FlowRecord> flows = new ArrayList<>();
    private int others;
    private int unread;
  }

  /**
   * Reads a message.
   *
   * @throws InvalidText with the offset in bytes; what came before it in the message is taken as
   *     lost, but for its templates
   */
  public IpfixMessage read(byte[] message) {
    ByteBuffer in = ByteBuffer.wrap(message);
    if (message.length < HEADER) {
      throw new InvalidText(0, "a header of 16 bytes", message.length + " bytes");
    }
    expect(in, "version 10", VERSION);
    expect(in, "the length of the message, " + message.length, message.length);
    Instant sentAt = Instant.ofEpochSecond(Integer.toUnsignedLong(in.getInt()));
    int sequence = in.getInt();
    int domainId = in.getInt();
    Domain domain = domains.computeIfAbsent(domainId, id -> new Domain());
    Read read = new Read();
    while (in.hasRemaining()) {
      readSet(in, domain, sentAt, read);
    }
    int step = domain.seen ? sequence - domain.expected : 0;
    domain.expected = sequence + read.flows.size() + read.others;
    domain.seen = read.unread == 0; // else the next number is not known
    long lost = step > 0 && step <= MOST_GAP ? step : 0;
    return new IpfixMessage(
        Integer.toUnsignedLong(domainId), sentAt, read.flows, read.others, read.unread, lost);
  }

  private static void expect(ByteBuffer in, String expected, int value) {
    int found = Short.toUnsignedInt(in.getShort());
    if (found != value) {
      throw new InvalidText(in.position() - Short.BYTES, expected, Integer.toString(found));
    }
  }

  private static void readSet(ByteBuffer in, Domain domain, Instant sentAt, Read read) {
    int begin = in.position();
    if (in.remaining() < SET_HEADER) {
      throw new InvalidText(begin, "a set of at least 4 bytes", in.remaining() + " bytes");
    }
    int id = Short.toUnsignedInt(in.getShort());
    int length = Short.toUnsignedInt(in.getShort());
    if (length < SET_HEADER || length > in.limit() - begin) {
      throw new InvalidText(
          begin + Short.BYTES,
          "a length of the set from 4 to " + (in.limit() - begin),
          Integer.toString(length));
    }
    ByteBuffer set = in.duplicate().limit(begin + length);
    if (id == TEMPLATE_SET) {
      readTemplates(set, domain.templates, domain.options, 1);
    } else if (id == OPTIONS_TEMPLATE_SET) {
      readTemplates(set, domain.options, domain.templates, 2);
    } else if (id >= FIRST_DATA_SET) {
      readData(set, id, domain, sentAt, read);
    } else {
      throw new InvalidText(begin, "a set of templates or data", "set " + id);
    }
    in.position(begin + length);
  }

  /**
   * @param others templates of the other kind, of which none may keep the id
   * @param counts how many numbers follow the id: of the fields, and of the scope fields
   */
  private static void readTemplates(
      ByteBuffer set, Map<Integer, Template> into, Map<Integer, Template> others, int counts) {
    while (set.remaining() >= SET_HEADER) { // less is padding
      int begin = set.position();
      int id = Short.toUnsignedInt(set.getShort());
      int count = Short.toUnsignedInt(set.getShort());
      if (id == 0 && count == 0) {
        return; // padding
      }
      if (count == 0) {
        withdraw(id, into);
        continue;
      }
      if (id < FIRST_DATA_SET) {
        throw new InvalidText(begin, "a template from 256", "template " + id);
      }
      if (counts == 2) {
        need(set, Short.BYTES, "the number of scope fields");
        set.getShort();
      }
      others.remove(id);
      into.remove(id); // so that it counts as the latest
      into.put(id, readTemplate(set, count, begin));
    }
  }

  private static void withdraw(int id, Map<Integer, Template> templates) {
    if (id == TEMPLATE_SET || id == OPTIONS_TEMPLATE_SET) {
      templates.clear();
    } else {
      templates.remove(id);
    }
  }

  private static Template readTemplate(ByteBuffer set, int count, int begin) {
    if (count > MOST_FIELDS) {
      throw new InvalidText(begin, "at most " + MOST_FIELDS + " fields", count + " fields");
    }
    List<Field> fields = new ArrayList<>();
    for (int i = 0; i < count; i++) {
      need(set, 2 * Short.BYTES, "a field of the template");
      int element = Short.toUnsignedInt(set.getShort());
      int length = Short.toUnsignedInt(set.getShort());
      boolean foreign = (element & FOREIGN) != 0;
      if (foreign) {
        need(set, Integer.BYTES, "an enterprise number");
        set.getInt();
      }
      fields.add(new Field(element & ~FOREIGN, length, foreign));
    }
    Template template = Template.of(fields);
    if (template.minBytes() == 0) {
      throw new InvalidText(begin, "a template whose records have bytes", "fields of length 0");
    }
    return template;
  }

  private static void need(ByteBuffer in, int bytes, String what) {
    if (in.remaining() < bytes) {
      throw new InvalidText(in.position(), what, "the end of the set");
    }
  }

  private static void readData(ByteBuffer set, int id, Domain domain, Instant sentAt, Read read) {
    Template template = domain.templates.get(id);
    Template options = domain.options.get(id);
    Template known = template == null ? options : template;
    if (known == null) {
      read.unread++;
      return;
    }
    while (set.remaining() >= known.minBytes()) { // less is padding
      FlowFields fields = new FlowFields();
      known.read(set, fields);
      Optional<FlowRecord> flow = template == null ? Optional.empty() : fields.flow(sentAt);
      flow.ifPresentOrElse(read.flows::add, () -> read.others++);
    }
  }
}
