/** The laws on the live data, and the level of a batch. */
@NullMarked
package leveltally.server.proof;

import org.jspecify.annotations.NullMarked;
