/** What somebody looks for, read out of a few characters. */
@NullMarked
package leveltally.core.workline;

import org.jspecify.annotations.NullMarked;
