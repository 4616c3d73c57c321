/** How files travel to a bank and from it: once under each name, or not known whether they did. */
@org.jspecify.annotations.NullMarked
package leveltally.core.exchange;
