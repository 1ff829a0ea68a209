package dev.ironsieve.server;

import static io.restassured.RestAssured.given;
import static org.assertj.core.api.Assertions.assertThat;
import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.equalTo;

import io.quarkus.test.junit.QuarkusTest;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

@QuarkusTest
class PagesTest {
  private static String nonce(String policy) {
    Matcher nonce = Pattern.compile("'nonce-([^']+)'").matcher(policy);
    assertThat(nonce.find()).as(policy).isTrue();
    return nonce.group(1);
  }

  @Test
  void everyAddressOfTheAppIsThePageWithANonceOfItsOwn() {
    var first = given().get("/rulebases/1/rules");
    var second = given().get("/");
    assertThat(first.statusCode()).isEqualTo(200);
    String nonce = nonce(first.header("Content-Security-Policy"));
    assertThat(first.body().asString()).contains(nonce).doesNotContain("__NONCE__");
    assertThat(nonce(second.header("Content-Security-Policy"))).isNotEqualTo(nonce);
    assertThat(first.header("Content-Security-Policy"))
        .contains("default-src 'none'", "script-src 'self';", "frame-ancestors 'none'")
        .doesNotContain("unsafe");
  }

  @Test
  void answersCarryTheSecurityHeaders() {
    given()
        .get("/api/session")
        .then()
        .statusCode(401)
        .header("X-Content-Type-Options", equalTo("nosniff"))
        .header("Cache-Control", equalTo("no-store"))
        .header("Content-Security-Policy", containsString("default-src 'none'"));
  }

  @Test
  void theDescriptionThatTheWebIsBuiltFromIsTheServersOwn() throws IOException {
    String served = given().accept("application/json").get("/api/openapi?format=json").asString();
    String committed = Files.readString(Path.of("../web/openapi.json"));
    assertThat(committed.strip())
        .as("web/openapi.json; copy server/target/openapi/openapi.json there")
        .isEqualTo(served.strip());
  }
}
