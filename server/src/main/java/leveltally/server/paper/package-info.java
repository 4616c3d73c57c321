/** How checks and advice stand on paper. */
@NullMarked
package leveltally.server.paper;

import org.jspecify.annotations.NullMarked;
