/** Findings for other programs: our own JSON, SARIF 2.1.0 and JUnit XML. */
package dev.ironsieve.formats.report;
