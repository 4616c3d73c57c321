/** The state of the day over the whole road, and finding any thing on it. */
@NullMarked
package leveltally.server.workline;

import org.jspecify.annotations.NullMarked;
