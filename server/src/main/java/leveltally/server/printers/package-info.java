/** The company's printers, and how pages reach each of them. */
@NullMarked
package leveltally.server.printers;

import org.jspecify.annotations.NullMarked;
