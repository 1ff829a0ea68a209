/** Catalogues of applications as JSON documents, described by docs/catalogue.schema.json. */
package dev.ironsieve.formats.catalogue;
