/** Wires that are ordered at the bank's site from a list: each under its own reference, confirmed one by one. */
@org.jspecify.annotations.NullMarked
package leveltally.server.wires;
