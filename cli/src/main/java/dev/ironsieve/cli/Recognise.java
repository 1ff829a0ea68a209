package dev.ironsieve.cli;

import dev.ironsieve.core.catalogue.Catalogue;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.Family;
import dev.ironsieve.core.signature.MovedFile;
import dev.ironsieve.core.signature.Recognised;
import dev.ironsieve.core.signature.Recogniser;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.capture.CapturedConnection;
import dev.ironsieve.formats.capture.Captures;
import dev.ironsieve.formats.catalogue.Catalogues;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Tells which application each connection of a capture is. */
@Command(
    name = "recognise",
    mixinStandardHelpOptions = true,
    description = "Tells which application each connection of a capture is, and by what.",
    footer = {
      "Of several signatures that hold, the narrowest is meant: an exact host name before one",
      "below a name, that before a path, a field, a protocol or bytes, those before a port.",
      "Exit code: 0 read to its end, 2 unreadable, or cut off; what was read is written all the same."
    })
final class Recognise implements Callable<Integer> {
  /** How the connections are written. */
  enum Format {
    text,
    json
  }

  /**
   * One connection, as {@code --format json} writes it.
   *
   * @param application as rules name it; missing if it was not recognised
   * @param evidence what of the connection decided
   * @param others what wider signatures take it for
   * @param files what it moves, as far as that is seen; missing if it is nothing
   */
  record Told(
      String from,
      String to,
      String service,
      long packets,
      String application,
      List<String> evidence,
      List<String> others,
      List<Moved> files) {}

  /** A file that a connection moves. */
  record Moved(String direction, String name, String kind, String evidence) {
    @Override
    public String toString() {
      return direction + " of a file" + (name == null ? "" : " " + name) + ": " + kind;
    }
  }

  @Parameters(
      index = "0",
      paramLabel = "CAPTURE",
      description = "pcap or pcapng; - for standard input.")
  private Path capture;

  @Option(
      names = "--catalogue",
      required = true,
      paramLabel = "FILE.json",
      description = "The applications with their signatures.")
  private Path catalogueFile;

  @Option(names = "--format", description = "One of ${COMPLETION-CANDIDATES}; text if left out.")
  private Format format = Format.text;

  @CommandLine.Spec private CommandLine.Model.CommandSpec spec;

  @Override
  public Integer call() {
    PrintWriter out = spec.commandLine().getOut();
    PrintWriter err = spec.commandLine().getErr();
    Recogniser recogniser = new Recogniser(catalogue().signatures());
    String name = capture.toString();
    try (InputStream in = input()) {
      Captures.Summary read =
          Captures.read(name, in, connection -> tell(connection, recogniser, out));
      read.unknownLinks()
          .forEach(
              (link, packets) ->
                  err.printf("%s: %d packets on links of type %d%n", name, packets, link));
      if (read.passedOver() > 0) {
        err.printf("%s: %d packets are not read%n", name, read.passedOver());
      }
      if (read.cut() != null) {
        err.printf("%s: %s%n", name, read.cut());
      }
      return read.cut() == null ? Main.FINE : Main.UNREADABLE;
    } catch (IOException e) {
      throw new Unreadable(name + ": cannot be read: " + e.getMessage());
    } finally {
      out.flush();
    }
  }

  private Catalogue catalogue() {
    try {
      return Catalogues.read(Files.readAllBytes(catalogueFile));
    } catch (IOException e) {
      throw new Unreadable(catalogueFile + ": cannot be read: " + e.getMessage());
    }
  }

  private InputStream input() throws IOException {
    if (capture.toString().equals("-")) {
      return System.in;
    }
    if (!Files.isRegularFile(capture)) {
      throw new Unreadable(capture + ": expected a file, found nothing");
    }
    return Files.newInputStream(capture);
  }

  private void tell(CapturedConnection c, Recogniser recogniser, PrintWriter out) {
    Recognised found = recogniser.recognise(c.sight()).orElse(null);
    List<Moved> files =
        MovedFile.in(c.sight()).stream()
            .map(f -> new Moved(f.direction().word(), f.name(), f.kind(), f.evidence()))
            .toList();
    Told told =
        new Told(
            end(c.from(), c.fromPort()),
            end(c.to(), c.toPort()),
            c.service().toString(),
            c.packets(),
            found == null ? null : found.meant().use(),
            found == null ? null : found.evidence(),
            found == null
                ? null
                : found.others().stream().map(Recogniser.Named::use).distinct().toList(),
            files.isEmpty() ? null : files);
    if (format == Format.json) {
      out.println(Json.line(told));
      return;
    }
    out.printf(
        "%s to %s %s: %s%s%s%n",
        told.from,
        c.to(),
        told.service,
        found == null ? Catalogue.UNIDENTIFIED : told.application,
        found == null ? "" : " (" + String.join("; ", told.evidence) + ")",
        files.stream().map(file -> "; " + file).collect(Collectors.joining()));
  }

  private static String end(Address address, int port) {
    String text = address.family() == Family.IPV6 && port > 0 ? "[" + address + "]" : "" + address;
    return port > 0 ? text + ":" + port : text;
  }
}
