/** Whom the company owes. */
@NullMarked
package leveltally.core.vendors;

import org.jspecify.annotations.NullMarked;
