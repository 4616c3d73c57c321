/** What surrounds every capability: HTTP, security, time, and the work line. */
@NullMarked
package leveltally.server.frame;

import org.jspecify.annotations.NullMarked;
