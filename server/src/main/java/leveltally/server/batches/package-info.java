/** Batches, their claims and reservations. */
@NullMarked
package leveltally.server.batches;

import org.jspecify.annotations.NullMarked;
