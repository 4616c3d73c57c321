/** Checks that payees do not present, and how they were asked about them. */
@org.jspecify.annotations.NullMarked
package leveltally.server.contacts;
