package dev.ironsieve.formats;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.core.JsonLocation;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.StreamReadConstraints;
import com.fasterxml.jackson.core.exc.InputCoercionException;
import com.fasterxml.jackson.core.exc.StreamConstraintsException;
import com.fasterxml.jackson.core.io.JsonEOFException;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonMappingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.cfg.CoercionAction;
import com.fasterxml.jackson.databind.cfg.CoercionInputShape;
import com.fasterxml.jackson.databind.exc.InvalidTypeIdException;
import com.fasterxml.jackson.databind.exc.MismatchedInputException;
import com.fasterxml.jackson.databind.exc.UnrecognizedPropertyException;
import com.fasterxml.jackson.databind.type.LogicalType;
import java.io.CharConversionException;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** JSON (RFC 8259), read strictly: no unknown members, no doubled members, no silent conversion. */
public final class Json {
  /** Longest document, in bytes. */
  public static final int MAX_BYTES = 256 * 1024 * 1024;

  private static final int MAX_DEPTH = 40;
  private static final int MAX_TEXT = 100_000;
  private static final int MAX_DIGITS = 40;
  private static final String JSON = "JSON (RFC 8259)";
  private static final Pattern QUOTED = Pattern.compile("'([\\x20-\\x7e&&[^']]{1,40})'");
  private static final ObjectMapper MAPPER = strict(new ObjectMapper());

  private Json() {}

  /** Makes {@code mapper} as strict as this reader, and returns it. */
  public static ObjectMapper strict(ObjectMapper mapper) {
    mapper
        .getFactory()
        .setStreamReadConstraints(
            StreamReadConstraints.builder()
                .maxNestingDepth(MAX_DEPTH)
                .maxStringLength(MAX_TEXT)
                .maxNumberLength(MAX_DIGITS)
                .build());
    mapper.enable(JsonParser.Feature.STRICT_DUPLICATE_DETECTION);
    mapper.enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES);
    mapper.enable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS);
    mapper.enable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES);
    mapper.disable(DeserializationFeature.ACCEPT_FLOAT_AS_INT);
    for (LogicalType type :
        List.of(LogicalType.Textual, LogicalType.Boolean, LogicalType.Integer)) {
      for (CoercionInputShape shape : CoercionInputShape.values()) {
        if (shape != natural(type)) {
          mapper.coercionConfigFor(type).setCoercion(shape, CoercionAction.Fail);
        }
      }
    }
    mapper.setDefaultPropertyInclusion(JsonInclude.Include.NON_NULL);
    return mapper;
  }

  private static CoercionInputShape natural(LogicalType type) {
    return switch (type) {
      case Textual -> CoercionInputShape.String;
      case Boolean -> CoercionInputShape.Boolean;
      default -> CoercionInputShape.Integer;
    };
  }

  /**
   * Reads a document.
   *
   * @throws InvalidDocument with the place of the first fault
   */
  public static <T> T read(byte[] json, Class<T> type) {
    if (json.length > MAX_BYTES) {
      throw new InvalidDocument("$", "at most " + MAX_BYTES + " bytes", json.length + " bytes");
    }
    try {
      T value = MAPPER.readValue(json, type);
      if (value == null) {
        throw new InvalidDocument("$", "an object", "null");
      }
      return value;
    } catch (JsonProcessingException e) {
      throw new InvalidDocument(List.of(fault(e)));
    } catch (CharConversionException e) {
      throw new InvalidDocument("$", JSON + " in UTF-8", "another encoding");
    } catch (IOException e) {
      throw new UncheckedIOException("reading from memory", e);
    }
  }

  /** The value on one line, without a line break at its end. */
  public static String line(Object value) {
    try {
      return MAPPER.writeValueAsString(value);
    } catch (JsonProcessingException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** Writes {@code value}, indented, with a line end. */
  public static String write(Object value) {
    try {
      return MAPPER.writer().with(SerializationFeature.INDENT_OUTPUT).writeValueAsString(value)
          + "\n";
    } catch (JsonProcessingException e) {
      throw new IllegalArgumentException("not to be written as JSON: " + value.getClass(), e);
    }
  }

  /** The fault in {@code e}, without the words of the library. */
  public static Fault fault(JsonProcessingException e) {
    return switch (e) {
      case UnrecognizedPropertyException unknown ->
          new Fault(
              path(unknown),
              "one of " + String.join(", ", names(unknown)),
              "\"" + unknown.getPropertyName() + "\"");
      case InvalidTypeIdException type ->
          new Fault(
              path(type),
              "a known kind of " + type.getBaseType().getRawClass().getSimpleName(),
              type.getTypeId() == null ? "none" : "\"" + type.getTypeId() + "\"");
      case MismatchedInputException mismatch ->
          new Fault(path(mismatch), expected(mismatch.getTargetType()), found(mismatch));
      case JsonMappingException mapping when !mapping.getPath().isEmpty() ->
          new Fault(path(mapping), "a fitting value", "one that does not fit");
      case StreamConstraintsException limit ->
          new Fault(place(limit.getLocation()), limit(limit.getOriginalMessage()), "more");
      case JsonEOFException end -> new Fault(place(end.getLocation()), JSON, "the end");
      case InputCoercionException number ->
          new Fault(place(number.getLocation()), "a number in range", "a larger or smaller one");
      default -> new Fault(place(e.getLocation()), JSON, notJson(e.getOriginalMessage()));
    };
  }

  /** Which limit was exceeded, in our words. */
  private static String limit(String message) {
    if (message.contains("nesting depth")) {
      return "at most " + MAX_DEPTH + " levels of nesting";
    }
    if (message.contains("Number value length")) {
      return "numbers of at most " + MAX_DIGITS + " digits";
    }
    return "texts of at most " + MAX_TEXT + " characters";
  }

  /** The text found where JSON was expected: the quoted part of the library's message, if any. */
  private static String notJson(String message) {
    if (message.startsWith("Duplicate field")) {
      return "a member twice";
    }
    if (message.contains("UTF-")) {
      return "bytes that are not UTF-8";
    }
    Matcher quoted = QUOTED.matcher(message);
    return quoted.find() ? '"' + quoted.group(1) + '"' : "something else";
  }

  private static List<String> names(UnrecognizedPropertyException e) {
    return e.getKnownPropertyIds() == null
        ? List.of("nothing")
        : e.getKnownPropertyIds().stream().map(Object::toString).sorted().toList();
  }

  private static String path(JsonMappingException e) {
    StringBuilder out = new StringBuilder("$");
    for (JsonMappingException.Reference reference : e.getPath()) {
      if (reference.getFieldName() != null) {
        out.append('.').append(reference.getFieldName());
      } else if (reference.getIndex() >= 0) {
        out.append('[').append(reference.getIndex()).append(']');
      }
    }
    return out.toString();
  }

  private static String expected(Class<?> type) {
    if (type == null) {
      return "a fitting value";
    }
    if (type == String.class) {
      return "text";
    }
    if (type == boolean.class || type == Boolean.class) {
      return "true or false";
    }
    if (type.isPrimitive() || Number.class.isAssignableFrom(type)) {
      return "a whole number";
    }
    if (List.class.isAssignableFrom(type) || type.isArray()) {
      return "an array";
    }
    if (type.isEnum()) {
      return "one of " + List.of(type.getEnumConstants()).toString().toLowerCase();
    }
    return "an object";
  }

  private static String found(MismatchedInputException e) {
    try {
      JsonParser parser = (JsonParser) e.getProcessor();
      return parser == null || parser.currentToken() == null
          ? "the end"
          : switch (parser.currentToken()) {
            case START_OBJECT -> "an object";
            case START_ARRAY -> "an array";
            case VALUE_NULL -> "null";
            case VALUE_STRING -> "\"" + parser.getText() + "\"";
            case END_OBJECT, END_ARRAY -> "the end";
            default -> parser.getText();
          };
    } catch (IOException unreadable) {
      return "something else";
    }
  }

  private static String place(JsonLocation at) {
    return at == null ? "$" : "line " + at.getLineNr() + ", column " + at.getColumnNr();
  }
}
