package dev.ironsieve.core.model;

/**
 * The page that a person is shown when a rule asks for caution, or refuses them in a browser.
 *
 * @param heading 1 to {@value Names#MAX_NAME} characters
 * @param text what the page says, in plain text
 */
public record Notice(String name, String heading, String text) {
  public Notice {
    Names.checkObject("notice", name);
    heading = Names.checkTitle("heading of a notice", heading);
    Names.checkNote(text);
    if (text.isBlank()) {
      throw new InvalidModel("notice \"" + name + "\"", "a text", "none");
    }
  }
}
