package dev.ironsieve.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.hamcrest.Matchers.contains;
import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.empty;
import static org.hamcrest.Matchers.hasItem;
import static org.hamcrest.Matchers.is;
import static org.hamcrest.Matchers.nullValue;

import com.sun.net.httpserver.HttpServer;
import io.quarkus.test.junit.QuarkusTest;
import io.restassured.path.json.JsonPath;
import io.restassured.response.ValidatableResponse;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Lists from outside: fetched, uploaded, held back, let through, taken into drafts. */
@QuarkusTest
class FeedTest {
  private static final AtomicInteger NAMES = new AtomicInteger();
  private static final String FOUR = "203.0.113.0\n203.0.113.2\n203.0.113.4\n203.0.113.6\n";

  private final String name = "List " + NAMES.incrementAndGet();
  private HttpServer source;
  private volatile String file = FOUR;
  private volatile int status = 200;
  private volatile int askedWithTag;

  @BeforeEach
  void startSource() throws IOException {
    source = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    source.createContext(
        "/",
        exchange -> {
          try (exchange) {
            String tag = "\"" + file.hashCode() + "\"";
            String had = exchange.getRequestHeaders().getFirst("If-None-Match");
            askedWithTag += had == null ? 0 : 1;
            exchange.getResponseHeaders().add("ETag", tag);
            if (tag.equals(had)) {
              exchange.sendResponseHeaders(304, -1);
              return;
            }
            byte[] body = file.getBytes(StandardCharsets.UTF_8);
            exchange.sendResponseHeaders(status, body.length);
            exchange.getResponseBody().write(body);
          }
        });
    source.start();
  }

  @AfterEach
  void stopSource() {
    source.stop(0);
  }

  private String settings(int mostBytes) {
    return """
        {"url": "http://127.0.0.1:%d/list", "everyMinutes": 60, "mostBytes": %d, "mostPercent": 30}
        """
        .formatted(source.getAddress().getPort(), mostBytes);
  }

  private void add(String kind, String settings) {
    Client.signedIn("odile.marsh")
        .request()
        .body(
            "{\"name\": \"%s\", \"kind\": \"%s\", \"settings\": %s}"
                .formatted(name, kind, settings))
        .post("/api/feeds")
        .then()
        .statusCode(204);
  }

  private ValidatableResponse fetch(Client editor) {
    return editor
        .request()
        .post("/api/feeds/" + name + "/fetch")
        .then()
        .statusCode(200)
        .rootPath("find { it.name == '" + name + "' }");
  }

  private static String edition(ValidatableResponse feed, String name, int at) {
    return feed.extract()
        .jsonPath()
        .getString("find { it.name == '" + name + "' }.editions[" + at + "].name");
  }

  @Test
  void whatIsAsBeforeMakesNoEditionAndAFailureLeavesTheLast() {
    Client editor = Client.signedIn("tomas.wren");
    add("addresses", settings(1000));
    fetch(editor)
        .body("editions.state", contains("offered"))
        .body("editions[0].entries", is(4))
        .body("fault", nullValue());
    fetch(editor).body("editions.size()", is(1));
    assertThat(askedWithTag).isEqualTo(1);
    file = "# the same, said otherwise\n203.0.113.6\n" + FOUR;
    fetch(editor).body("editions.size()", is(1)).body("fault", nullValue());
    status = 503;
    file = "busy";
    fetch(editor).body("editions.size()", is(1)).body("fault", containsString("503"));
    status = 200;
    file = "<html>\nsorry\n</html>\n";
    fetch(editor).body("fault", containsString("at least one line")).body("editions.size()", is(1));
    file = "203.0.113.1\n".repeat(100);
    fetch(editor).body("fault", is("It is larger than 1000 bytes."));
    source.stop(0);
    fetch(editor).body("fault", containsString("could not be fetched"));
    file = FOUR;
  }

  @Test
  void badLinesAndGreatChangesWaitForAPerson() {
    Client editor = Client.signedIn("tomas.wren");
    add("addresses", settings(1000));
    fetch(editor);
    file = FOUR + "203.0.113.999\n203.0.113.8\n";
    ValidatableResponse held =
        fetch(editor)
            .body("editions.state", contains("held", "offered"))
            .body("editions[0].reasons", contains("1 of 6 lines could not be read."));
    String waiting = edition(held, name, 0);
    String path = "/api/feeds/" + name + "/editions/" + waiting;
    editor
        .request()
        .get(path)
        .then()
        .statusCode(200)
        .body("faults[0].line", is(5))
        .body("faults[0].found", is("203.0.113.999"))
        .body("changes[0].gained", contains("203.0.113.8"))
        .body("changes[0].lost", empty());
    String draft = "/api/rulebases/" + editor.rulebase("feeds " + name) + "/draft";
    String take = draft + "/feeds/" + name + "/" + waiting;
    editor.request().body("{\"version\": 0}").put(take).then().statusCode(409);
    editor.request().body("{\"offer\": true}").put(path + "/decision").then().statusCode(200);
    editor.request().body("{\"offer\": true}").put(path + "/decision").then().statusCode(409);
    editor.request().body("{\"version\": 0}").put(take).then().statusCode(200);
    file = "0.0.0.0/0\n";
    ValidatableResponse grown =
        fetch(editor)
            .body("editions[0].state", is("held"))
            .body("editions[0].reasons[0]", containsString("up to 30 % is approved automatically"));
    String all = edition(grown, name, 0);
    editor
        .request()
        .body("{\"offer\": false}")
        .put("/api/feeds/" + name + "/editions/" + all + "/decision")
        .then()
        .body("find { it.name == '" + name + "' }.editions[0].state", is("refused"))
        .body("find { it.name == '" + name + "' }.editions[0].decidedBy", is("Tomas Wren"));
    fetch(editor).body("editions.size()", is(3)); // refused once is not offered again
    editor
        .request()
        .body("{\"version\": 1}")
        .put(draft + "/feeds/" + name + "/" + all)
        .then()
        .statusCode(409)
        .body("detail", containsString("rejected this edition"));
  }

  @Test
  void aDraftSeesWhatAnEditionChangesAndTakesIt() {
    Client editor = Client.signedIn("ruth.okell");
    add("categories", "{\"everyMinutes\": 60, \"mostBytes\": 1000, \"mostPercent\": 100}");
    long rulebase = editor.rulebase("feeds " + name);
    String draft = "/api/rulebases/" + rulebase + "/draft";
    editor
        .request()
        .contentType("text/csv")
        .body("host,category\n*.dice.example,Dice\n")
        .post("/api/feeds/" + name + "/upload")
        .then()
        .statusCode(200);
    editor.request().post("/api/feeds/" + name + "/fetch").then().statusCode(409);
    String first = editionName(editor, 0);
    editor.request().get(draft + "/feeds/" + name + "/" + first).then().statusCode(409);
    editor
        .request()
        .body("{\"version\": 0}")
        .put(draft + "/feeds/" + name + "/" + first)
        .then()
        .statusCode(200)
        .body("edit.kind", is("putFeed"))
        .body("edit.pinned.sets.name", contains("Dice"))
        .body("edit.feed", nullValue());
    String rule =
        "{\"id\": \"d\", \"name\": \"No dice\", \"verdict\": \"reject\","
            + " \"terms\": {\"site\": {\"items\": [\"Dice\"]}}}";
    editor
        .edit(
            rulebase,
            1,
            "{\"kind\": \"insertRules\", \"place\": {\"above\": \"a\"}, \"rules\": [" + rule + "]}")
        .then()
        .statusCode(200);
    editor
        .request()
        .contentType("text/csv")
        .body("*.dice.example,Dice\nwww.lucky.example,Dice\n")
        .post("/api/feeds/" + name + "/upload")
        .then()
        .statusCode(200);
    String second = editionName(editor, 0);
    editor
        .request()
        .get(draft + "/feeds/" + name + "/" + second)
        .then()
        .statusCode(200)
        .body("rules[0].gained", contains("www.lucky.example"))
        .body("changed.Dice", contains("+www.lucky.example"))
        .body("complete", is(true))
        .body("verdicts.after", hasItem("reject"));
    editor
        .request()
        .body("{\"line\": \"from 10.0.0.1 to 192.0.2.1 tcp/443 site a.dice.example\"}")
        .post(draft + "/probe")
        .then()
        .statusCode(200)
        .body("verdict", is("reject"))
        .body(
            "notes", hasItem("a.dice.example is in Dice by " + name + ", edition " + first + "."));
    Forgetting.drafts();
    JsonPath again = editor.draft(rulebase).jsonPath();
    assertThat(again.<String>getList("feeds.edition")).containsExactly(first);
    editor.post(rulebase, "undo").then().statusCode(200);
    editor.post(rulebase, "undo").then().statusCode(200);
    assertThat(editor.draft(rulebase).jsonPath().getList("feeds")).isEmpty();
  }

  private String editionName(Client editor, int at) {
    return editor
        .request()
        .get("/api/feeds")
        .jsonPath()
        .getString("find { it.name == '" + name + "' }.editions[" + at + "].name");
  }

  @Test
  void onlyAdminsSayWhereAFeedIsAndNothingWrongIsTaken() {
    Client admin = Client.signedIn("odile.marsh");
    Client publisher = Client.signedIn("ruth.okell");
    publisher.request().body("{}").post("/api/feeds").then().statusCode(403);
    for (List<String> wrong :
        List.of(
            List.of("\"Good\"", "\"moods\"", "{\"everyMinutes\": 1}", "$.settings.mostBytes"),
            List.of("\"Good\"", "\"moods\"", settings(10), "$.kind"),
            List.of("\"1.2.3.4\"", "\"addresses\"", settings(10), "feed name"),
            List.of("\"G\"", "\"addresses\"", settings(10).replace("http", "file"), "url"))) {
      admin
          .request()
          .body(
              "{\"name\": %s, \"kind\": %s, \"settings\": %s}"
                  .formatted(wrong.get(0), wrong.get(1), wrong.get(2)))
          .post("/api/feeds")
          .then()
          .statusCode(422)
          .body("faults[0].path", containsString(wrong.get(3)));
    }
    add("countries", settings(10));
    admin
        .request()
        .body(
            "{\"name\": \""
                + name
                + "\", \"kind\": \"countries\", \"settings\": "
                + settings(9)
                + "}")
        .post("/api/feeds")
        .then()
        .statusCode(409);
    admin
        .request()
        .body("{\"settings\": " + settings(20) + "}")
        .put("/api/feeds/" + name)
        .then()
        .statusCode(204);
    publisher
        .request()
        .contentType("text/plain")
        .body("x".repeat(21))
        .post("/api/feeds/" + name + "/upload")
        .then()
        .statusCode(413);
    admin.request().delete("/api/feeds/" + name).then().statusCode(204);
    admin.request().delete("/api/feeds/" + name).then().statusCode(404);
  }
}
