/** Schedules as calendars: iCalendar (RFC 5545), both ways. */
package dev.ironsieve.formats.icalendar;
