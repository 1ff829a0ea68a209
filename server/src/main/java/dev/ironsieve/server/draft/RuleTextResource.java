package dev.ironsieve.server.draft;

import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edit.MissingObject;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.core.text.RuleText;
import dev.ironsieve.formats.Fault;
import dev.ironsieve.formats.document.FromModel;
import dev.ironsieve.formats.document.RuleDocument;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.QueryParam;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;

/** Rules as text, to be copied and pasted. */
@Path("/api/rulebases/{rulebase}/draft/rules")
@RolesAllowed(Role.MAY_VIEW)
public class RuleTextResource {
  private static final int MOST_FAULTS = 20;
  private static final int ID_LENGTH = 16;

  private final Drafts drafts;

  RuleTextResource(Drafts drafts) {
    this.drafts = drafts;
  }

  /** The text of some rules, in their order. */
  @GET
  @Path("/text")
  public RuleTexts write(long rulebase, @QueryParam("id") List<String> ids) {
    Set<String> wanted = Set.copyOf(ids);
    return new RuleTexts(
        drafts.rulebase(rulebase).rules().stream()
            .filter(rule -> wanted.contains(rule.id()))
            .map(RuleText::format)
            .collect(Collectors.joining("\n")),
        null,
        null);
  }

  /** The rules of a text, which are not inserted yet; empty lines are passed over. */
  @POST
  @Path("/text")
  @RolesAllowed(Role.MAY_EDIT)
  public RuleTexts read(long rulebase, RuleTexts body) {
    Refusal.requireBody(body);
    String text = Refusal.require(body.text(), "$.text", "rules, one in each line");
    Rulebase base = drafts.rulebase(rulebase);
    List<Rule> rules = new ArrayList<>();
    List<RuleDocument> out = new ArrayList<>();
    List<Fault> faults = new ArrayList<>();
    int number = 0;
    for (String line : text.lines().toList()) {
      number++;
      if (line.isBlank()) {
        continue;
      }
      try {
        Rule rule = RuleText.parse(line, newId());
        rules.add(rule);
        out.add(FromModel.rule(rule));
      } catch (InvalidText e) {
        String place = "line %d, character %d".formatted(number, e.offset() + 1);
        faults.add(new Fault(place, e.expected(), e.found()));
      }
      if (faults.size() == MOST_FAULTS || out.size() > Edit.MAX_RULES) {
        break;
      }
    }
    if (!faults.isEmpty()) {
      throw new Refusal.Invalid(faults);
    }
    if (out.isEmpty() || out.size() > Edit.MAX_RULES) {
      throw new Refusal.Invalid("$.text", "1 to " + Edit.MAX_RULES + " rules", out.size() + "");
    }
    return new RuleTexts(
        text,
        out,
        MissingObject.in(rules, base).stream()
            .map(one -> new RuleTexts.MissingName(one.kind().word(), one.name()))
            .toList());
  }

  private static String newId() {
    return UUID.randomUUID().toString().replace("-", "").substring(0, ID_LENGTH);
  }
}
