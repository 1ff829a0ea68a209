/** Rules in a text file, as people mail and compare them. */
package dev.ironsieve.formats.ruletext;
