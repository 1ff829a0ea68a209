/** Reading lists from outside: block lists, countries by address, categories by host. */
package dev.ironsieve.formats.feed;
