/** Payments without an invoice, typed row by row or taken from a schedule. */
@org.jspecify.annotations.NullMarked
package leveltally.server.direct;
