/** Exact amounts of one currency. */
@NullMarked
package leveltally.core.money;

import org.jspecify.annotations.NullMarked;
