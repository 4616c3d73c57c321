/** What the bank did with payments: read, matched, questioned, answered, reconciled. */
@NullMarked
package leveltally.server.clearing;

import org.jspecify.annotations.NullMarked;
