/** Turns, runs, documents and the stand-in printer. */
@NullMarked
package leveltally.server.printing;

import org.jspecify.annotations.NullMarked;
