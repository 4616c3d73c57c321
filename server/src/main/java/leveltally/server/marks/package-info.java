/** What about the payments of a batch deserves a look. */
@NullMarked
package leveltally.server.marks;

import org.jspecify.annotations.NullMarked;
