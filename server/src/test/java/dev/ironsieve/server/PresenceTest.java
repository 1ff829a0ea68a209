package dev.ironsieve.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.equalTo;
import static org.hamcrest.Matchers.hasItem;
import static org.hamcrest.Matchers.hasSize;
import static org.hamcrest.Matchers.startsWith;

import dev.ironsieve.core.sets.Address;
import dev.ironsieve.formats.radius.Accounting;
import dev.ironsieve.formats.radius.Accounting.Status;
import dev.ironsieve.server.presence.RadiusListener;
import io.quarkus.test.junit.QuarkusTest;
import io.restassured.response.ValidatableResponse;
import jakarta.inject.Inject;
import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.SocketTimeoutException;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Who is signed in where: told by RADIUS and by REST, and what a probe makes of it. */
@QuarkusTest
class PresenceTest {
  private static final byte[] SECRET = "between us".getBytes(StandardCharsets.UTF_8);
  private static final InetAddress LOOPBACK = InetAddress.getLoopbackAddress();

  @Inject RadiusListener listener;
  private Client ruth;

  @BeforeEach
  void signIn() {
    ruth = Client.signedIn("ruth.okell");
  }

  private ValidatableResponse signedIn(String person) {
    return ruth.request().get("/api/sign-ins?person=" + person).then().statusCode(200);
  }

  private ValidatableResponse probe(String line) {
    return ruth.request()
        .body("{\"line\": \"" + line + "\"}")
        .post("/api/rulebases/1/draft/probe")
        .then()
        .statusCode(200);
  }

  /** Sends a request and waits for its answer. */
  private static void tell(
      int port, Status status, String user, String address, String session, byte[] secret)
      throws IOException {
    tell(port, status, user, address, session, secret, 30_000);
  }

  private static void tell(
      int port,
      Status status,
      String user,
      String address,
      String session,
      byte[] secret,
      int patience)
      throws IOException {
    byte[] told =
        Accounting.request(9, status, user, Address.parse(address), null, session, secret);
    try (DatagramSocket socket = new DatagramSocket(0, LOOPBACK)) {
      socket.setSoTimeout(patience);
      socket.send(new DatagramPacket(told, told.length, LOOPBACK, port));
      DatagramPacket answer = new DatagramPacket(new byte[100], 100);
      socket.receive(answer);
      assertThat(answer.getLength()).isEqualTo(20);
      assertThat(answer.getData()[0]).isEqualTo((byte) 5);
      assertThat(answer.getData()[1]).isEqualTo((byte) 9);
    }
  }

  @Test
  void theDemosSwitchesHaveToldWhoIsThere() {
    signedIn("abel.brook").body("", hasSize(1)).body("[0].address", equalTo("10.1.64.10"));
    probe("from 10.1.64.10 to 192.0.2.10 tcp/443")
        .body("line", containsString("person Abel Brook"))
        .body(
            "notes",
            hasItem(
                "Abel Brook is signed in at 10.1.64.10, so the probe asks as them. Their device is"
                    + " managed, platform kelpos, has disk-lock, has fresh-updates."))
        .body("line", containsString("device managed, platform kelpos, has disk-lock"));
    probe("person Abel Brook to 192.0.2.10 tcp/443")
        .body("line", containsString("from 10.1.64.10 in offices"))
        .body("line", containsString("device managed, platform kelpos"));
    probe("person Abel Brook to 192.0.2.10 tcp/443 device unmanaged")
        .body("line", containsString("device unmanaged"));
    probe("from 10.1.64.10 to 192.0.2.10 tcp/443 person Ben Holm")
        .body("line", containsString("person Ben Holm"))
        .body("notes", hasItem(startsWith("Ben Holm is in ")));
  }

  @Test
  void aStopEndsOnlyItsOwnSession() throws IOException {
    int port = listener.listen(new InetSocketAddress(LOOPBACK, 0), "between us");
    tell(port, Status.START, "maya.lind", "10.1.99.1", "a", SECRET);
    signedIn("maya.lind").body("address", hasItem("10.1.99.1"));
    tell(port, Status.START, "ben.holm", "10.1.99.1", "b", SECRET);
    tell(port, Status.STOP, "maya.lind", "10.1.99.1", "a", SECRET);
    signedIn("ben.holm").body("address", hasItem("10.1.99.1"));
    tell(port, Status.STOP, "ben.holm", "10.1.99.1", "b", SECRET);
    probe("from 10.1.99.1 to 192.0.2.10 tcp/443")
        .body("line", equalTo("from 10.1.99.1 in offices to 192.0.2.10 in booking tcp/443"));
    tell(port, Status.START, "a.stranger", "10.1.99.1", "c", SECRET);
    probe("from 10.1.99.1 to 192.0.2.10 tcp/443")
        .body("line", containsString("person signed in but unlisted"));
    tell(port, Status.STOP, "a.stranger", "10.1.99.1", "c", SECRET);
  }

  @Test
  void whoeverDoesNotKnowTheSecretIsNotAnswered() {
    int port = listener.listen(new InetSocketAddress(LOOPBACK, 0), "between us");
    assertThatThrownBy(
            () -> tell(port, Status.START, "maya.lind", "10.1.99.2", "x", new byte[] {1}, 1500))
        .isInstanceOf(SocketTimeoutException.class);
    probe("from 10.1.99.2 to 192.0.2.10 tcp/443")
        .body("line", equalTo("from 10.1.99.2 in offices to 192.0.2.10 in booking tcp/443"));
  }

  @Test
  void othersTellByRest() {
    ruth.request()
        .body("{\"person\": \"maya.lind\", \"device\": \"Unmanaged, has disk-lock\"}")
        .put("/api/sign-ins/2001:db8:1::7")
        .then()
        .statusCode(204);
    signedIn("Maya.Lind")
        .body("find { it.address == '2001:db8:1::7' }.device", equalTo("unmanaged, has disk-lock"));
    ruth.request()
        .body("{\"person\": \"maya.lind\", \"device\": \"shiny\"}")
        .put("/api/sign-ins/2001:db8:1::7")
        .then()
        .statusCode(422)
        .body("faults[0].path", equalTo("$.device"));
    ruth.request().delete("/api/sign-ins/2001:db8:1::7").then().statusCode(204);
    signedIn("maya.lind").body("address.findAll { it == '2001:db8:1::7' }", hasSize(0));
    ruth.request()
        .body("{\"person\": \"maya.lind\"}")
        .put("/api/sign-ins/10.1.1.256")
        .then()
        .statusCode(422);
    ruth.request().get("/api/sign-ins").then().statusCode(422);
    Client.signedIn("ines.calder")
        .request()
        .body("{\"person\": \"maya.lind\"}")
        .put("/api/sign-ins/10.1.1.2")
        .then()
        .statusCode(403);
  }
}
