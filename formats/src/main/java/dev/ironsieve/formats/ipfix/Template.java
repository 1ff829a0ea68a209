package dev.ironsieve.formats.ipfix;

import dev.ironsieve.core.sets.InvalidText;
import java.nio.ByteBuffer;
import java.util.List;

/**
 * The layout of data records (RFC 7011, section 3.4).
 *
 * @param minBytes of one record; each variable length takes at least one byte
 */
record Template(List<Field> fields, int minBytes) {
  /** The length of a field that says in each record how long it is. */
  static final int VARIABLE = 65_535;

  private static final int LONG_FORM = 255; // of a variable length: two more bytes follow

  /**
   * A field of each record.
   *
   * @param id of an information element
   * @param length in bytes, or {@link #VARIABLE}
   * @param foreign whether the element is one of an enterprise
   */
  record Field(int id, int length, boolean foreign) {
    Field(int id, int length) {
      this(id, length, false);
    }
  }

  static Template of(List<Field> fields) {
    int least = 0;
    for (Field field : fields) {
      least += field.length() == VARIABLE ? 1 : field.length();
    }
    return new Template(List.copyOf(fields), least);
  }

  /** Takes the value of each field of a record. */
  interface Values {
    /**
     * @param value the bytes of the value, from the position to the limit
     */
    void take(Field field, ByteBuffer value);
  }

  /**
   * Reads one record.
   *
   * @param in at its start; its limit is the end of the set
   * @throws InvalidText with the offset in bytes, if the record reaches beyond the set
   */
  void read(ByteBuffer in, Values values) {
    for (Field field : fields) {
      int length = field.length() == VARIABLE ? variableLength(in) : field.length();
      if (in.remaining() < length) {
        throw new InvalidText(
            in.position(),
            length + " bytes of a value",
            in.remaining() + " bytes to the set's end");
      }
      values.take(field, in.slice(in.position(), length));
      in.position(in.position() + length);
    }
  }

  private static int variableLength(ByteBuffer in) {
    int before = in.position();
    if (in.remaining() >= 1) {
      int length = Byte.toUnsignedInt(in.get());
      if (length < LONG_FORM) {
        return length;
      }
      if (in.remaining() >= 2) {
        return Short.toUnsignedInt(in.getShort());
      }
    }
    throw new InvalidText(before, "the length of a value", "the end of the set");
  }
}
