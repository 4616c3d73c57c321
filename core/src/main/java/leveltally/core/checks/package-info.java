/** Check numbers and their lives. */
@NullMarked
package leveltally.core.checks;

import org.jspecify.annotations.NullMarked;
