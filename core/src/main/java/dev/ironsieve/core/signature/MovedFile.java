package dev.ironsieve.core.signature;

import dev.ironsieve.core.vocabulary.FileKinds;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/**
 * A file that a connection moves, as far as it is seen: the first that each side sends in HTTP/1,
 * or all that is sent where only one side says anything (as FTP does, RFC 959, section 3.2). In
 * what is encrypted nothing is seen.
 *
 * @param direction whether it goes from the opening side or to it
 * @param name what it is called; null if that is not said
 * @param kind by its name among {@link dev.ironsieve.core.vocabulary.FileKinds}
 * @param evidence what told the kind, in words
 */
public record MovedFile(Direction direction, String name, String kind, String evidence) {
  /** Which way it goes. */
  public enum Direction {
    UPLOAD,
    DOWNLOAD;

    public String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  private static final Set<String> BRINGING = Set.of("POST", "PUT", "PATCH");
  private static final String FORM = "application/x-www-form-urlencoded"; // text is no file then
  private static final int TCP = 6;
  private static final int ENOUGH = 16; // bytes of a stream that may be a file

  /** The files that a connection moves: an upload before a download. */
  public static List<MovedFile> in(Sight sight) {
    HttpRequest request = sight.http();
    List<MovedFile> out = new ArrayList<>(2);
    if (request != null) {
      if (BRINGING.contains(request.method())) {
        add(out, Direction.UPLOAD, HttpBody.of(sight.client(), true), request);
      }
      if (!request.method().equals("HEAD") && !request.method().equals("CONNECT")) {
        add(out, Direction.DOWNLOAD, HttpBody.of(sight.server(), false), request);
      }
      return out;
    }
    boolean up = sight.client().length >= ENOUGH && sight.server().length == 0;
    boolean down = sight.server().length >= ENOUGH && sight.client().length == 0;
    if (sight.protocol() == TCP && (up || down) && sight.tls() == null) {
      FileTeller.Classification told =
          FileTeller.tell(up ? sight.client() : sight.server(), null, null);
      out.add(
          new MovedFile(
              up ? Direction.UPLOAD : Direction.DOWNLOAD, null, told.kind(), told.evidence()));
    }
    return out;
  }

  private static void add(
      List<MovedFile> out, Direction direction, HttpBody body, HttpRequest request) {
    if (body == null) {
      return;
    }
    boolean posted = direction == Direction.UPLOAD && request.method().equals("POST");
    String name = body.name() != null ? body.name() : posted ? null : lastOf(request.path());
    FileTeller.Classification told = FileTeller.tell(body.bytes(), name, body.type());
    boolean fields = body.type() != null && body.type().startsWith(FORM);
    if (!fields || !told.kind().equals(FileKinds.TEXT)) {
      out.add(new MovedFile(direction, name, told.kind(), told.evidence()));
    }
  }

  /** The last part of a path; null if it is empty. */
  private static String lastOf(String path) {
    String last = path.substring(path.lastIndexOf('/') + 1);
    return last.isEmpty() ? null : last;
  }
}
