package dev.ironsieve.server.http;

import com.fasterxml.jackson.databind.ObjectMapper;
import dev.ironsieve.formats.Json;
import io.quarkus.jackson.ObjectMapperCustomizer;
import jakarta.inject.Singleton;

/** Makes the server read requests as strictly as files. */
@Singleton
public class JsonStrictness implements ObjectMapperCustomizer {
  @Override
  public void customize(ObjectMapper mapper) {
    Json.strict(mapper);
  }

  @Override
  public int priority() {
    return MINIMUM_PRIORITY; // last, so that this has the last word
  }
}
