package dev.ironsieve.server.log;

import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.server.refusal.Refusal;
import java.time.DateTimeException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * Which records are asked for, as a condition in SQL.
 *
 * @param condition {@code and …} for each criterion
 * @param values of its parameters, in order
 */
record LogFilter(String condition, List<Object> values) {
  /** The id that stands for the default rule. */
  static final String DEFAULT_RULE = "default";

  /** Builds a filter from texts of the query; each may be null. */
  static final class Builder {
    private final StringBuilder condition = new StringBuilder();
    private final List<Object> values = new ArrayList<>();

    private void add(String sql, Object... parameters) {
      condition.append(" and ").append(sql);
      values.addAll(List.of(parameters));
    }

    /**
     * Decided by a rule, or observed by it.
     *
     * @param rule an id, or {@link #DEFAULT_RULE}
     */
    Builder rule(String rule) {
      if (DEFAULT_RULE.equals(rule)) {
        add("r.rule is null");
      } else if (rule != null) {
        add("(r.rule = ? or r.observed_rule = ?)", rule, rule);
      }
      return this;
    }

    /** A verdict, or {@code refused} for drop and reject. */
    Builder verdict(String verdict) {
      if ("refused".equals(verdict)) {
        add("r.verdict in ('drop', 'reject')");
      } else if (verdict != null) {
        try {
          add("r.verdict = ?", Verdict.valueOf(verdict.toUpperCase(Locale.ROOT)).word());
        } catch (IllegalArgumentException e) {
          throw new Refusal.Invalid("verdict", "allow, drop, reject, caution or refused", verdict);
        }
      }
      return this;
    }

    Builder person(String person) {
      if (person != null) {
        add("lower(r.person) = lower(?)", person);
      }
      return this;
    }

    /** An address, a prefix or a range, at either end. */
    Builder address(String address) {
      if (address == null) {
        return this;
      }
      AddressRange range;
      try {
        range = AddressRange.parse(address);
      } catch (InvalidText e) {
        throw new Refusal.Invalid("address", e.expected(), address);
      }
      String first = range.first().toString();
      String last = range.last().toString();
      add(
          "(r.from_address between ?::inet and ?::inet or r.to_address between ?::inet and ?::inet)",
          first,
          last,
          first,
          last);
      return this;
    }

    /** An application, with any feature unless one is named. */
    Builder application(String application) {
      if (application != null) {
        add(
            "(lower(r.application) = lower(?) or starts_with(lower(r.application), lower(?)))",
            application,
            application + ":");
      }
      return this;
    }

    /** From a time on, included. */
    Builder since(String time) {
      if (time != null) {
        add("r.at >= ?", instant("since", time));
      }
      return this;
    }

    /** Up to a time, not included. */
    Builder until(String time) {
      if (time != null) {
        add("r.at < ?", instant("until", time));
      }
      return this;
    }

    /** Behind the record with a cursor. */
    Builder behind(String cursor) {
      if (cursor != null) {
        String[] parts = cursor.split("_");
        try {
          Instant at = Instant.parse(parts[0]);
          long id = Long.parseLong(parts[1]);
          add("(r.at, r.id) < (?, ?)", at, id);
        } catch (DateTimeException | NumberFormatException | ArrayIndexOutOfBoundsException e) {
          throw new Refusal.Invalid("behind", "the cursor of a record", cursor);
        }
      }
      return this;
    }

    private static Instant instant(String name, String text) {
      try {
        return Instant.parse(text);
      } catch (DateTimeException e) {
        throw new Refusal.Invalid(name, "a time such as 2026-12-01T10:00:00Z", text);
      }
    }

    LogFilter build() {
      return new LogFilter(condition.toString(), List.copyOf(values));
    }
  }
}
