package dev.ironsieve.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.equalTo;
import static org.hamcrest.Matchers.greaterThan;
import static org.hamcrest.Matchers.hasItem;
import static org.hamcrest.Matchers.not;
import static org.hamcrest.Matchers.notNullValue;
import static org.hamcrest.Matchers.nullValue;
import static org.hamcrest.Matchers.startsWith;

import dev.ironsieve.server.directory.Directory;
import dev.ironsieve.server.directory.DirectoryConfig;
import dev.ironsieve.server.directory.DirectorySource;
import io.quarkus.test.junit.QuarkusTest;
import io.restassured.path.json.JsonPath;
import io.restassured.response.Response;
import jakarta.inject.Inject;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** The demo's directory, read over LDAP: snapshots, people, and taking them into drafts. */
@QuarkusTest
class DirectoryTest {
  @Inject Directory directory;
  @Inject DirectoryConfig config;
  private Client ruth;

  @BeforeEach
  void signIn() {
    ruth = Client.signedIn("ruth.okell");
  }

  private JsonPath read() {
    return ruth.request().post("/api/directory/read").then().statusCode(200).extract().jsonPath();
  }

  private Response people(String snapshot, String text) {
    return ruth.request()
        .queryParam("text", text)
        .get("/api/directory/{snapshot}/people", snapshot);
  }

  private Response edition(long rulebase, String snapshot) {
    return ruth.request()
        .get("/api/rulebases/{id}/draft/editions/person/{snapshot}", rulebase, snapshot);
  }

  private Response take(long rulebase, long version, String snapshot) {
    return ruth.request()
        .body("{\"version\": " + version + "}")
        .put("/api/rulebases/{id}/draft/editions/person/{snapshot}", rulebase, snapshot);
  }

  @Test
  void aReadingThatFindsNothingNewMakesNoSnapshot() {
    JsonPath first = read();
    List<String> names = first.getList("snapshots.name");
    assertThat(names).hasSizeGreaterThan(1); // the demo's people have moved since its start
    assertThat(first.getString("fault")).isNull();
    JsonPath again = read();
    assertThat(again.<String>getList("snapshots.name")).isEqualTo(names);
    assertThat(again.getString("readAt")).isGreaterThanOrEqualTo(first.getString("readAt"));
  }

  @Test
  void aDirectoryThatIsAwayLeavesTheLastSnapshotInForce() {
    JsonPath before = read();
    DirectorySource away =
        DirectorySource.of(config, Optional.of("ldap://127.0.0.1:1")).orElseThrow();
    DirectorySource here =
        DirectorySource.of(config, Optional.of(before.getString("address"))).orElseThrow();
    directory.use(away);
    try {
      JsonPath failed = read();
      assertThat(failed.getString("fault")).startsWith("Connecting to 127.0.0.1 port 1");
      assertThat(failed.getString("readAt")).isEqualTo(before.getString("readAt"));
      assertThat(failed.getString("triedAt")).isGreaterThan(before.getString("readAt"));
      assertThat(failed.<String>getList("snapshots.name"))
          .isEqualTo(before.getList("snapshots.name"));
    } finally {
      directory.use(here);
    }
    assertThat(read().getString("fault")).isNull();
  }

  @Test
  void peopleAreFoundByAnythingThatIsKnownOfThem() {
    List<String> snapshots = read().getList("snapshots.name");
    String oldest = snapshots.getLast();
    people(oldest, "ben holm")
        .then()
        .statusCode(200)
        .body("total", equalTo(240))
        .body("people[0].id", equalTo("ben.holm"))
        .body("people[0].attributes.title[0]", equalTo("help desk clerk"))
        .body("people[0].groups.name", hasItem("staff"))
        .body(
            "people[0].groups.find { it.name == 'staff' }.through",
            equalTo(List.of("help desk", "IT", "ashore")));
    people(oldest, "deckhand")
        .then()
        .body("fitting", greaterThan(5))
        .body("people.attributes.title.flatten().unique()", equalTo(List.of("deckhand")));
    people(oldest, "nobody at all").then().body("fitting", equalTo(0));
    people("2020-01-01", "").then().statusCode(404).body("detail", containsString("2020-01-01"));
    ruth.request()
        .get("/api/directory/{snapshot}/people?limit=501", oldest)
        .then()
        .statusCode(422)
        .body("detail", containsString("1 to 500"));
  }

  @Test
  void aSnapshotIsTakenIntoADraftAndTakenBack() {
    List<String> snapshots = read().getList("snapshots.name");
    String oldest = snapshots.getLast();
    String newest = snapshots.getFirst();
    long id = ruth.rulebase("Takes people");
    edition(id, oldest).then().statusCode(409).body("detail", containsString("no person yet"));
    take(id, 0, oldest).then().statusCode(200);
    String rule =
        """
        {"kind": "insertRules", "place": {"startOf": "s"}, "rules": [{"id": "n", "name": "N",
         "verdict": "allow", "terms": {"person": {"items": ["network team"]}}},
         {"id": "m", "name": "M", "verdict": "reject",
         "terms": {"person": {"items": ["title is contractor"]}}}]}""";
    ruth.edit(id, 1, rule).then().statusCode(200);
    edition(id, newest)
        .then()
        .statusCode(200)
        .body("added", equalTo(List.of("Orla Keel", "Pell Wharf")))
        .body("removed", equalTo(List.of("Xenia Keel")))
        .body("changed.'Ben Holm'", hasItem("groups from help desk to network team"))
        .body("rules.find { it.id == 'n' }.gained", equalTo(List.of("Ben Holm")))
        .body("rules.find { it.id == 'm' }.lost", equalTo(List.of("Xenia Keel")))
        .body("verdicts.witness", hasItem(containsString("Ben Holm")))
        .body("complete", equalTo(true));
    take(id, 2, newest).then().statusCode(200);
    ruth.draft(id).then().body("editions.person", equalTo(newest));
    ruth.post(id, "undo").then().statusCode(200);
    ruth.draft(id).then().body("editions.person", equalTo(oldest));
    ruth.request()
        .get("/api/rulebases/{id}/draft/editions/device/{snapshot}", id, newest)
        .then()
        .statusCode(422)
        .body("detail", containsString("application or person"));
  }

  @Test
  void aRuleThatMeansSomebodyWhoLeftHoldsTheSnapshotUp() {
    List<String> snapshots = read().getList("snapshots.name");
    long id = ruth.rulebase("Names a person who leaves");
    take(id, 0, snapshots.getLast()).then().statusCode(200);
    String rule =
        """
        {"kind": "insertRules", "place": {"startOf": "s"}, "rules": [{"id": "n", "name": "N",
         "verdict": "allow", "terms": {"person": {"items": ["Xenia Keel"]}}}]}""";
    ruth.edit(id, 1, rule).then().statusCode(200);
    edition(id, snapshots.getFirst())
        .then()
        .body("rules[0].unknown", equalTo(List.of("Xenia Keel")))
        .body("verdicts", equalTo(List.of()))
        .body("complete", equalTo(false));
    take(id, 2, snapshots.getFirst())
        .then()
        .statusCode(422)
        .body("detail", containsString("Xenia Keel"));
  }

  @Test
  void tellsWhichRulesCanEverDecideForAPerson() {
    ruth.request()
        .get("/api/rulebases/1/draft/people/{person}", "Ben Holm")
        .then()
        .statusCode(200)
        .body("complete", equalTo(true))
        .body("rules.id", hasItem("p01")) // the help desk's
        .body("rules.id", not(hasItem("p04"))) // rostering's
        .body("rules[0].witness", containsString("Ben Holm"))
        .body("rules[-1].id", nullValue())
        .body("rules[-1].verdict", equalTo("drop"))
        .body("rules[-1].ends", notNullValue());
    ruth.request()
        .get("/api/rulebases/1/draft/people/{person}", "Nobody Here")
        .then()
        .statusCode(404)
        .body("detail", startsWith("This draft knows nobody"));
  }

  @Test
  void onlyEditorsReadItAnew() {
    Client ines = Client.signedIn("ines.calder");
    ines.request().post("/api/directory/read").then().statusCode(403);
    ines.request().get("/api/directory").then().statusCode(200);
  }
}
