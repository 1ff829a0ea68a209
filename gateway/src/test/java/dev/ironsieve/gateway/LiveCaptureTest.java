package dev.ironsieve.gateway;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.formats.Digest;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HexFormat;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Real packets: curl asks nginx, both in a network namespace of their own, and a gateway whose
 * server is away decides what tcpdump captures there.
 */
class LiveCaptureTest {
  private static final int PATIENCE = 120; // seconds

  private static final String RULES =
      """
      {"ironSieve": 1, "name": "quay",
       "zones": [{"name": "here", "members": ["127.0.0.0/8"]}, {"name": "internet"}],
       "vocabularies": [{"coordinate": "application", "edition": "1",
         "values": ["Lanternreel", "Quillbox"],
         "applications": [
           {"name": "Lanternreel", "uses": ["Lanternreel"], "ports": ["tcp/8080"]},
           {"name": "Quillbox", "uses": ["Quillbox"], "ports": ["tcp/8080"]}]}],
       "sections": [{"id": "s", "name": "S", "rules": [
         {"id": "films", "name": "No films", "verdict": "reject", "log": "start",
          "terms": {"application": {"items": ["Lanternreel"]}}},
         {"id": "quay", "name": "The quay's own pages", "verdict": "allow", "log": "both",
          "terms": {"site": {"items": ["*.quay.example"]}}}]}]}
      """;

  private static final String CATALOGUE =
      """
      {"ironSieveCatalogue": 1, "edition": "1", "applications": [
        {"name": "Lanternreel", "summary": "Films.", "category": "video", "risk": 2,
         "usefulness": 1, "ports": ["tcp/8080"], "hosts": ["*.lanternreel.example"],
         "signatures": [{"httpHost": "*.lanternreel.example"}]},
        {"name": "Quillbox", "summary": "Mail.", "category": "mail", "risk": 1,
         "usefulness": 4, "ports": ["tcp/8080"], "hosts": ["*.quillbox.example"],
         "signatures": [{"httpHost": "*.quillbox.example"}]}]}
      """;

  private static final String NGINX =
      """
      worker_processes 1;
      pid %1$s/nginx.pid;
      error_log %1$s/nginx.log;
      events {}
      http {
        access_log off;
        client_body_temp_path %1$s;
        proxy_temp_path %1$s;
        fastcgi_temp_path %1$s;
        uwsgi_temp_path %1$s;
        scgi_temp_path %1$s;
        server { listen 127.0.0.1:8080; location / { return 200 "ahoy\\n"; } }
      }
      """;

  /** Asks until the gateway has said something about every host, or it takes too long. */
  private static final String SCRIPT =
      """
      set -eu
      ip link set lo up
      /usr/sbin/nginx -c "$PWD/nginx.conf"
      "$@" --server http://127.0.0.1:1 --data gateway --catalogue catalogue.json \
        --interface lo --filter 'tcp port 8080' >said 2>errors &
      gateway=$!
      trap 'kill $gateway; kill "$(cat nginx.pid)"' EXIT
      for i in $(seq 100); do
        if grep -q 'No films' said && grep -q 'own pages' said && grep -q 'default rule' said; then
          exit 0
        fi
        for host in www.lanternreel.example www.quay.example other.example; do
          curl -s -o answer -H "Host: $host" http://127.0.0.1:8080/
        done
        sleep 1
      done
      exit 1
      """;

  @TempDir Path folder;

  private void write(String name, String text) throws Exception {
    Files.writeString(folder.resolve(name), text);
  }

  private String said() throws Exception {
    return Files.readString(folder.resolve("said")) + Files.readString(folder.resolve("errors"));
  }

  @Test
  void connectionsOfRealProgramsAreRecognisedAndDecided() throws Exception {
    byte[] document = RULES.getBytes(StandardCharsets.UTF_8);
    try (Revisions revisions = Revisions.open(folder.resolve("gateway"))) {
      revisions.keepSecret("hush");
      Revisions.Revision one =
          new Revisions.Revision(7, HexFormat.of().formatHex(Digest.of(RULES)));
      revisions.store(one, document);
      revisions.switchTo(one);
    }
    write("catalogue.json", CATALOGUE);
    write("nginx.conf", NGINX.formatted(folder));
    Process process =
        new ProcessBuilder(
                List.of(
                    "unshare",
                    "--net",
                    "sh",
                    "-c",
                    SCRIPT,
                    "sh",
                    Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                    "-Xmx64m",
                    "-cp",
                    System.getProperty("java.class.path"),
                    "dev.ironsieve.gateway.Main"))
            .directory(folder.toFile())
            .redirectErrorStream(true)
            .redirectOutput(folder.resolve("script.log").toFile())
            .start();
    assertThat(process.waitFor(PATIENCE, TimeUnit.SECONDS)).isTrue();
    String log = Files.readString(folder.resolve("script.log")) + said();
    assertThat(process.exitValue()).as(log).isZero();
    assertThat(said())
        .contains("127.0.0.1 in here")
        .contains("Lanternreel: reject by \"No films\", at the handshake")
        .contains("unidentified: allow by \"The quay's own pages\"")
        .contains("unidentified: drop by the default rule");
    assertThat(folder.resolve("answer")).hasContent("ahoy");
  }
}
