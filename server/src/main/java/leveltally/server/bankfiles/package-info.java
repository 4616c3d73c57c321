/** Positive pay files. */
@NullMarked
package leveltally.server.bankfiles;

import org.jspecify.annotations.NullMarked;
