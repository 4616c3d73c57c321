/** What the company owes, and what reduces it. */
@NullMarked
package leveltally.core.invoices;

import org.jspecify.annotations.NullMarked;
