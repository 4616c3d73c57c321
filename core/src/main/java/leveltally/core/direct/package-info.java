/** Payments without an invoice, and those that fall due again and again. */
@NullMarked
package leveltally.core.direct;

import org.jspecify.annotations.NullMarked;
