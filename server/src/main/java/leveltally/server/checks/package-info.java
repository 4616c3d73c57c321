/** Check numbers, the payments behind them and what the bank must hear. */
@NullMarked
package leveltally.server.checks;

import org.jspecify.annotations.NullMarked;
