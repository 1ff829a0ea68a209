package dev.ironsieve.bench;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import java.io.PrintWriter;

/** Generated connections as comma-separated values, as {@code probe --connections} reads them. */
final class ConnectionLines {
  private ConnectionLines() {}

  static void write(RulebaseGenerator generator, int count, PrintWriter out) {
    out.println(
        "from-zone,from-address,to-zone,to-address,protocol,from-port,to-port,"
            + "person,device,host,application,time");
    for (int i = 0; i < count; i++) {
      Connection c = generator.connection();
      out.println(
          String.join(
              ",",
              given(c.from().zone()),
              c.from().address().toString(),
              given(c.to().zone()),
              c.to().address().toString(),
              c.protocol() + "",
              c.sourcePort() + "",
              c.detail() + "",
              given(c.terms().get(Coordinate.PERSON)),
              given(c.terms().get(Coordinate.DEVICE)),
              given(c.terms().get(Coordinate.SITE)),
              given(c.terms().get(Coordinate.APPLICATION)),
              given(c.terms().get(Coordinate.TIME))));
    }
  }

  private static String given(String value) {
    return value == null ? "" : value;
  }
}
