package dev.ironsieve.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.hamcrest.Matchers.equalTo;
import static org.hamcrest.Matchers.greaterThanOrEqualTo;

import dev.ironsieve.server.question.QuestionPool;
import io.quarkus.test.junit.QuarkusTest;
import io.restassured.response.Response;
import jakarta.inject.Inject;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;

/** The progress of a question that takes long. */
@QuarkusTest
class QuestionProgressTest {
  private static final int THREADS = Math.max(1, Runtime.getRuntime().availableProcessors() / 2);

  @Inject QuestionPool pool;

  @Test
  void aQuestionThatWaitsSaysSoAndOnlyToItsAccount() throws Exception {
    Client ruth = Client.signedIn("ruth.okell");
    Client tomas = Client.signedIn("tomas.wren");
    long id = ruth.rulebase("Progress of questions");
    ruth.draft(id).then().statusCode(200);
    CountDownLatch busy = new CountDownLatch(THREADS);
    CountDownLatch release = new CountDownLatch(1);
    for (int i = 0; i < THREADS; i++) {
      Thread.ofVirtual().start(() -> pool.ask(() -> block(busy, release)));
    }
    assertThat(busy.await(20, TimeUnit.SECONDS)).isTrue();

    CompletableFuture<Response> answer =
        CompletableFuture.supplyAsync(
            () ->
                ruth.request()
                    .header("X-Question", "q1")
                    .body("{\"line\": \"tcp/443\"}")
                    .post("/api/rulebases/" + id + "/draft/probe"));
    Response progress = ruth.request().get("/api/questions/q1");
    for (int i = 0; i < 200 && progress.statusCode() == 404; i++) {
      Thread.sleep(50);
      progress = ruth.request().get("/api/questions/q1");
    }
    progress
        .then()
        .statusCode(200)
        .body("running", equalTo(false))
        .body("waiting", greaterThanOrEqualTo(1))
        .body("deadline", equalTo(30));
    tomas.request().get("/api/questions/q1").then().statusCode(404);

    release.countDown();
    assertThat(answer.get(20, TimeUnit.SECONDS).statusCode()).isEqualTo(200);
    ruth.request().get("/api/questions/q1").then().statusCode(404);
  }

  private static boolean block(CountDownLatch busy, CountDownLatch release) {
    busy.countDown();
    try {
      return release.await(20, TimeUnit.SECONDS);
    } catch (InterruptedException e) {
      throw new IllegalStateException(e);
    }
  }
}
