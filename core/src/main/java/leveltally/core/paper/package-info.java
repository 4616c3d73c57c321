/** Checks as they go onto paper. */
@NullMarked
package leveltally.core.paper;

import org.jspecify.annotations.NullMarked;
