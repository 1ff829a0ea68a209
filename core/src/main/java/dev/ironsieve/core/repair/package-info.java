/** Ways to remove a finding, each with its effect on verdicts worked out beforehand. */
package dev.ironsieve.core.repair;
