/** What puts pages onto paper, and what it answers. */
@NullMarked
package leveltally.core.printers;

import org.jspecify.annotations.NullMarked;
