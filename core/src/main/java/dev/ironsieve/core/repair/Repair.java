package dev.ironsieve.core.repair;

import dev.ironsieve.core.difference.Difference;
import dev.ironsieve.core.edit.Edit;

/**
 * One way to remove a finding.
 *
 * @param summary for people, in the imperative
 * @param edit the change
 * @param effect the connections whose verdict it changes
 */
public record Repair(String summary, Edit edit, Difference effect) {}
