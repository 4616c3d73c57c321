/** A batch of payments from draft to posted. */
@NullMarked
package leveltally.core.batches;

import org.jspecify.annotations.NullMarked;
