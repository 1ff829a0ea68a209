package dev.ironsieve.formats.csv;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.formats.InvalidDocument;
import java.io.IOException;
import java.io.Reader;
import java.io.UncheckedIOException;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.Consumer;
import java.util.function.Function;

/**
 * Reads connections from CSV, one in each line. The first line names the columns, in any order; a
 * column that is missing, and a field that is empty, mean unknown:
 *
 * <pre>
 *   from-zone, from-address, to-zone, to-address, protocol, from-port, to-port,
 *   person, device, host, application, feature, time
 * </pre>
 *
 * A zone that is not given is filled in where the address tells it. The protocol is a name (tcp,
 * udp, sctp, icmp, icmp6) or a number; for ICMP the port is a type, or type/code. A name that the
 * rulebase's vocabulary does not have is the name of something unknown to it. The time is a local
 * date and time (ISO 8601), or one of the vocabulary's own slices of the week.
 */
public final class ConnectionCsv {
  private static final int MAX_FIELD = 10_000;
  private static final int MOST_IN_BATCH = 2048;

  private ConnectionCsv() {}

  /** The answer about a batch up to its first fault, if it has one. */
  private record Answered<T>(T answer, InvalidDocument fault) {}

  /**
   * Reads all lines, many at once, and hands on what they are answered with, in their order. What
   * stands before a fault is handed on.
   *
   * @param file what to call the input in complaints
   * @param rulebase gives the zones and vocabularies
   * @param answer is asked by several threads at once
   * @param out is called by the calling thread alone
   * @throws InvalidDocument with the line and column of the first fault
   */
  public static <T> void read(
      String file,
      Reader input,
      Rulebase rulebase,
      Function<List<Connection>, T> answer,
      Consumer<T> out) {
    int threads = Runtime.getRuntime().availableProcessors();
    try (ExecutorService workers = Executors.newFixedThreadPool(threads);
        CsvReader<CsvRecord> csv =
            CsvReader.builder()
                .skipEmptyLines(true)
                .maxBufferSize(MAX_FIELD * 20)
                .ofCsvRecord(input)) {
      Iterator<CsvRecord> records = csv.iterator();
      if (!records.hasNext()) {
        throw new InvalidDocument(file, "a first line with the names of columns", "nothing");
      }
      ConnectionColumns columns = ConnectionColumns.of(file, records.next().getFields());
      ConnectionRows rows = new ConnectionRows(file, columns, rulebase);
      ArrayDeque<CompletableFuture<Answered<T>>> asked = new ArrayDeque<>();
      InvalidDocument fault = null;
      while (fault == null && records.hasNext()) {
        List<CsvRecord> batch = new ArrayList<>(MOST_IN_BATCH); // one thread answers it
        try {
          while (batch.size() < MOST_IN_BATCH && records.hasNext()) {
            batch.add(records.next());
          }
        } catch (CsvParseException | UncheckedIOException e) {
          fault = unreadable(file, e);
        }
        asked.add(CompletableFuture.supplyAsync(() -> answer(rows, batch, answer), workers));
        if (asked.size() > 2 * threads) {
          handOn(asked.remove().join(), out);
        }
      }
      while (!asked.isEmpty()) {
        handOn(asked.remove().join(), out);
      }
      if (fault != null) {
        throw fault;
      }
    } catch (CsvParseException | UncheckedIOException e) {
      throw unreadable(file, e);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static InvalidDocument unreadable(String file, RuntimeException e) {
    String told = e.getCause() == null ? null : e.getCause().getMessage();
    String found =
        told == null ? e.getMessage() : "%s (%s)".formatted(told.strip(), e.getMessage());
    return new InvalidDocument(file, "comma-separated values (RFC 4180)", found);
  }

  private static <T> Answered<T> answer(
      ConnectionRows rows, List<CsvRecord> batch, Function<List<Connection>, T> answer) {
    List<Connection> connections = new ArrayList<>(batch.size());
    InvalidDocument fault = null;
    try {
      for (CsvRecord record : batch) {
        connections.add(rows.connection(record));
      }
    } catch (InvalidDocument e) {
      fault = e;
    }
    return new Answered<>(answer.apply(connections), fault);
  }

  private static <T> void handOn(Answered<T> answered, Consumer<T> out) {
    out.accept(answered.answer);
    if (answered.fault != null) {
      throw answered.fault;
    }
  }
}
