/** The entry a payment writes. */
@NullMarked
package leveltally.core.posting;

import org.jspecify.annotations.NullMarked;
