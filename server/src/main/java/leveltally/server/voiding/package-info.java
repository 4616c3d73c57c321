/** Undoing posted checks. */
@NullMarked
package leveltally.server.voiding;

import org.jspecify.annotations.NullMarked;
