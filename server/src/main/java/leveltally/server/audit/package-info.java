/** The chained record of every deed. */
@NullMarked
package leveltally.server.audit;

import org.jspecify.annotations.NullMarked;
