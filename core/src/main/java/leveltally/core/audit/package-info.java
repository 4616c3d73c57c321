/** The unbroken chain of what was done. */
@NullMarked
package leveltally.core.audit;

import org.jspecify.annotations.NullMarked;
