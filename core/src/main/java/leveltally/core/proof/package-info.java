/** The laws, and the level that shows a batch keeps them. */
@NullMarked
package leveltally.core.proof;

import org.jspecify.annotations.NullMarked;
