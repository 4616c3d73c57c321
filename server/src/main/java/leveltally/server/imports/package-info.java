/** Files with vendors, invoices and credits: checked row by row, then brought in. */
@NullMarked
package leveltally.server.imports;

import org.jspecify.annotations.NullMarked;
