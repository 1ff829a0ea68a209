package dev.ironsieve.core.repair;

import dev.ironsieve.core.difference.Difference;
import dev.ironsieve.core.edit.Edit;

/**
 * One way to remove a finding.
 *
 * @param says what it does, for people
 * @param edit the change
 * @param effect which connections get another verdict by it
 */
public record Repair(String says, Edit edit, Difference effect) {}
