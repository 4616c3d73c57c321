/** Lists of what will be paid and of what was printed, on a screen, on paper and as a file. */
@NullMarked
package leveltally.server.reports;

import org.jspecify.annotations.NullMarked;
