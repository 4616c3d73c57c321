/** Balanced entries, accounts and periods. */
@NullMarked
package leveltally.core.ledger;

import org.jspecify.annotations.NullMarked;
