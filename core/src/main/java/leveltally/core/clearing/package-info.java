/** What the bank did with payments: read, matched, questioned, answered, reconciled. */
@org.jspecify.annotations.NullMarked
package leveltally.core.clearing;
