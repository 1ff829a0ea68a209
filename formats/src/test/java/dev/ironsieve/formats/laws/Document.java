package dev.ironsieve.formats.laws;

import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.FromModel;

/** A rulebase that is printed as the document that the command line reads. */
record Document(Rulebase base) {
  @Override
  public String toString() {
    return Json.write(FromModel.rulebase(base));
  }
}
