/** Reading and writing of open formats. Bad input is reported with its place, never guessed at. */
package dev.ironsieve.formats;
