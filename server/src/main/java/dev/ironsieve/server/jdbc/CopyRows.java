package dev.ironsieve.server.jdbc;

/** Rows in the text format of {@code copy}: values with tabs between them, a row on each line. */
public final class CopyRows {
  private final StringBuilder out = new StringBuilder();
  private boolean inRow;

  /** The next value of the row; null for no value. PostgreSQL stores no NUL character. */
  public CopyRows value(Object value) {
    if (inRow) {
      out.append('\t');
    }
    inRow = true;
    if (value == null) {
      out.append("\\N");
      return this;
    }
    String text = value.toString();
    for (int i = 0; i < text.length(); i++) {
      char c = text.charAt(i);
      switch (c) {
        case '\\' -> out.append("\\\\");
        case '\t' -> out.append("\\t");
        case '\n' -> out.append("\\n");
        case '\r' -> out.append("\\r");
        case 0 -> out.append('\uFFFD');
        default -> out.append(c);
      }
    }
    return this;
  }

  /** Ends the row. */
  public void end() {
    out.append('\n');
    inRow = false;
  }

  @Override
  public String toString() {
    return out.toString();
  }
}
