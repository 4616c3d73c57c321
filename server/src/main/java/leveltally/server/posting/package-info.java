/** Posting what came out good. */
@NullMarked
package leveltally.server.posting;

import org.jspecify.annotations.NullMarked;
