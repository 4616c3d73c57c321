/** Invoices and their settlement rows. */
@NullMarked
package leveltally.server.invoices;

import org.jspecify.annotations.NullMarked;
