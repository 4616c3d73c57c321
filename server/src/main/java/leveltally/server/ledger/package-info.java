/** The ledger, its periods and the bank accounts. */
@NullMarked
package leveltally.server.ledger;

import org.jspecify.annotations.NullMarked;
