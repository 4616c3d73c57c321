/** Undoing a posted check. */
@NullMarked
package leveltally.core.voiding;

import org.jspecify.annotations.NullMarked;
