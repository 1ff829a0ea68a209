package dev.ironsieve.core.model;

import java.util.LinkedHashSet;
import java.util.List;

/**
 * The owner, the ticket and the tags of a rule, which match nothing.
 *
 * @param owner who answers for it; empty if nobody is named
 * @param ticket the request that it was made for; empty for none
 * @param tags words to find it by, each once; letter case does not matter
 */
public record Ownership(String owner, String ticket, List<String> tags) {
  /** Most tags of one rule. */
  public static final int MAX_TAGS = 20;

  /** Most characters in a tag. */
  public static final int MAX_TAG = 40;

  public static final Ownership NONE = new Ownership("", "", List.of());

  public Ownership {
    owner = text("owner", owner);
    ticket = text("ticket", ticket);
    tags = tags(tags);
  }

  /**
   * Tags, each once, without blanks around them.
   *
   * @throws InvalidModel if there are too many, or one is no tag
   */
  static List<String> tags(List<String> given) {
    List<String> tags =
        List.copyOf(new LinkedHashSet<>(given.stream().map(Ownership::tag).toList()));
    if (tags.size() > MAX_TAGS) {
      throw new InvalidModel("tags", "at most " + MAX_TAGS, tags.size() + "");
    }
    Names.unique("tag", tags);
    return tags;
  }

  private static String text(String what, String text) {
    if (text.length() > Names.MAX_NAME || !Names.isPrintable(text)) {
      throw new InvalidModel(
          what, "at most " + Names.MAX_NAME + " characters on one line", Names.quoted(text));
    }
    return text.strip();
  }

  private static String tag(String text) {
    String tag = text.strip();
    if (tag.isEmpty() || tag.length() > MAX_TAG || !Names.isPrintable(tag)) {
      throw new InvalidModel(
          "tag", "1 to " + MAX_TAG + " characters on one line", Names.quoted(text));
    }
    return tag;
  }
}
