/** Checks as they go onto paper. */
@NullMarked
package leveltally.core.printing;

import org.jspecify.annotations.NullMarked;
