/** Who agreed to exactly which payments. */
@NullMarked
package leveltally.core.approval;

import org.jspecify.annotations.NullMarked;
