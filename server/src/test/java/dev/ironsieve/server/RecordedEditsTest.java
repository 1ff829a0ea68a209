package dev.ironsieve.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import io.quarkus.test.junit.QuarkusTest;
import io.restassured.response.Response;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Iterator;
import java.util.List;
import org.junit.jupiter.api.Test;

/**
 * Records edits of every kind with the draft after each, for the web app, whose own application of
 * edits is tested against the record. {@code -Drecord=write} writes the record anew.
 */
@QuarkusTest
class RecordedEditsTest {
  private static final Path RECORD = Path.of("../web/src/draft/recordedEdits.json");
  private static final List<String> LEFT_OUT =
      List.of("id", "name", "version", "changes", "standings", "analysisMillis");

  private static final String START =
      """
      {"ironSieve": 1, "name": "any",
       "zones": [{"name": "inside", "members": ["10.0.0.0/8"]}, {"name": "outside"}],
       "addresses": [{"name": "hosts", "members": ["10.0.0.1"]},
                     {"name": "group", "members": ["hosts", "10.0.1.0/24"]}],
       "services": [{"name": "web", "members": ["tcp/443", "tcp/80"]}],
       "hostLists": [{"name": "shops", "members": ["*.shop.example"]}],
       "schedules": [{"name": "office hours", "members": ["weekdays 08:00-18:00"]}],
       "deviceStates": [{"name": "fit", "members": ["managed, has disk-lock"]}],
       "ratePlans": [{"name": "Calls", "floor": "1 Mbit/s", "counted": "each rule"}],
       "notices": [{"name": "Stop", "heading": "Stop", "text": "Not allowed here."}],
       "checks": [{"name": "in", "connection": "from 10.0.0.1 in inside to 192.0.2.9 in outside tcp/443",
                   "verdict": "allow"}],
       "sections": [
         {"id": "s", "name": "First", "rules": [
           {"id": "a", "name": "A", "verdict": "allow", "fromZones": {"items": ["inside"]},
            "fromAddresses": {"items": ["hosts"]}, "ratePlan": "Calls"},
           {"id": "b", "name": "B", "verdict": "drop", "services": {"items": ["web"]}},
           {"id": "c", "name": "C", "verdict": "caution", "notice": "Stop",
            "terms": {"site": {"items": ["shops"]}, "time": {"items": ["office hours"]},
                      "device": {"items": ["fit"]}}}]},
         {"id": "t", "name": "Second", "rules": [
           {"id": "d", "name": "D", "verdict": "reject",
            "toAddresses": {"items": ["group"], "except": ["hosts"]}}]}]}
      """;

  private static final List<String> EDITS =
      List.of(
          """
          {"kind": "insertRules", "place": {"above": "b"},
           "rules": [{"id": "x", "name": "X", "verdict": "allow", "unfinished": true}]}""",
          """
          {"kind": "insertRules", "place": {"endOf": "t"},
           "rules": [{"id": "y", "name": "Y", "verdict": "drop",
                      "toZones": {"items": ["outside"]}}]}""",
          """
          {"kind": "replaceRules", "rules": [{"id": "x", "name": "X again", "verdict": "allow",
           "services": {"items": ["udp/53"]}, "tags": ["dns"], "owner": "network"}]}""",
          "{\"kind\": \"moveRules\", \"ids\": [\"d\", \"a\"], \"place\": {\"below\": \"c\"}}",
          "{\"kind\": \"moveRules\", \"ids\": [\"b\"], \"place\": {\"startOf\": \"t\"}}",
          "{\"kind\": \"insertSection\", \"id\": \"u\", \"name\": \"Third\", \"before\": \"t\"}",
          "{\"kind\": \"renameSection\", \"id\": \"u\", \"name\": \"Middle\"}",
          "{\"kind\": \"deleteSection\", \"id\": \"u\"}",
          "{\"kind\": \"deleteRules\", \"ids\": [\"y\", \"x\"]}",
          """
          {"kind": "putZone", "replaces": "inside",
           "object": {"name": "office", "members": ["10.0.0.0/8"]}}""",
          """
          {"kind": "putAddress", "replaces": "hosts",
           "object": {"name": "servers", "members": ["10.0.0.1", "10.0.0.2"]}}""",
          "{\"kind\": \"putAddress\", \"object\": {\"name\": \"new\", \"members\": [\"10.9.0.0/16\"]}}",
          """
          {"kind": "putService", "replaces": "web",
           "object": {"name": "secure web", "members": ["tcp/443"]}}""",
          """
          {"kind": "putHostList", "replaces": "shops",
           "object": {"name": "stores", "members": ["*.shop.example", "store.example"]}}""",
          """
          {"kind": "putSchedule", "replaces": "office hours",
           "object": {"name": "daytime", "members": ["daily 08:00-18:00"]}}""",
          """
          {"kind": "putDeviceState", "replaces": "fit",
           "object": {"name": "healthy", "members": ["managed"]}}""",
          """
          {"kind": "putRatePlan", "replaces": "Calls",
           "ratePlan": {"name": "Voice", "floor": "2 Mbit/s", "counted": "all rules"}}""",
          """
          {"kind": "putNotice", "replaces": "Stop",
           "notice": {"name": "Halt", "heading": "Halt", "text": "Ask first."}}""",
          "{\"kind\": \"setLineCapacity\", \"capacity\": \"1 Gbit/s\"}",
          "{\"kind\": \"setTimeZone\", \"name\": \"Europe/Oslo\"}",
          """
          {"kind": "setBreadth", "tooBroad": {"counting": ["people", "services"],
           "addresses": 256}}""",
          """
          {"kind": "putCheck", "check": {"name": "out", "connection":
           "from 10.0.0.1 in office to 192.0.2.9 in outside tcp/443", "verdict": "drop"}}""",
          "{\"kind\": \"deleteCheck\", \"name\": \"in\"}",
          "{\"kind\": \"deleteObject\", \"objectKind\": \"address\", \"name\": \"new\"}",
          """
          {"kind": "batch", "edits": [
            {"kind": "renameSection", "id": "t", "name": "Last"},
            {"kind": "deleteRules", "ids": ["d"]}]}""");

  private final ObjectMapper json = new ObjectMapper();

  @Test
  void theRecordOfEditsIsWhatTheServerDoes() throws IOException {
    Client ruth = Client.signedIn("ruth.okell");
    long id =
        ruth.request()
            .queryParam("name", "Recorded edits")
            .body(START)
            .post("/api/rulebases/import")
            .then()
            .statusCode(200)
            .extract()
            .jsonPath()
            .getLong("id");
    ObjectNode record = json.createObjectNode();
    ObjectNode before = draft(ruth, id);
    record.set("start", before);
    ArrayNode steps = record.putArray("steps");
    for (int i = 0; i < EDITS.size(); i++) {
      Response answer = ruth.edit(id, i, EDITS.get(i));
      assertThat(answer.statusCode()).as(EDITS.get(i) + answer.asString()).isEqualTo(200);
      ObjectNode after = draft(ruth, id);
      ObjectNode step = steps.addObject();
      step.set("edit", json.readTree(answer.asString()).get("edit"));
      step.set("changed", difference(before, after));
      before = after;
    }
    String text = json.writerWithDefaultPrettyPrinter().writeValueAsString(record) + "\n";
    if ("write".equals(System.getProperty("record"))) {
      Files.writeString(RECORD, text);
    }
    assertThat(json.readTree(Files.readString(RECORD)))
        .as("run this test with -Drecord=write after a change of edits")
        .isEqualTo(record);
  }

  private ObjectNode draft(Client client, long id) throws IOException {
    ObjectNode draft = (ObjectNode) json.readTree(client.draft(id).asString());
    draft.remove(LEFT_OUT);
    return draft;
  }

  /** The members that differ, with null for those that are gone. */
  private ObjectNode difference(ObjectNode before, ObjectNode after) {
    ObjectNode out = json.createObjectNode();
    for (Iterator<String> names = after.fieldNames(); names.hasNext(); ) {
      String name = names.next();
      JsonNode value = after.get(name);
      if (!value.equals(before.get(name))) {
        out.set(name, value);
      }
    }
    before
        .fieldNames()
        .forEachRemaining(
            name -> {
              if (!after.has(name)) {
                out.putNull(name);
              }
            });
    return out;
  }
}
