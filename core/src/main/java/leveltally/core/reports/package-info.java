/** Lists that are read on a screen, on paper and as a file: the same rows each time. */
@NullMarked
package leveltally.core.reports;

import org.jspecify.annotations.NullMarked;
